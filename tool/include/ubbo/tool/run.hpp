#pragma once

#include "ubbo/io/motion/easing_css.hpp"
#include "ubbo/parts/kinds.hpp"
#include "ubbo/skin/comb.hpp"

/// The `ubbo` command, for an app that has parts of its own.
namespace ubbo::tool {

class Verb;
struct Kit;

/// What only some builds of the command carry. Where one is missing the command says how to get a build with
/// it.
struct Extras {
  /// Adds `live`: `ubbo::tool::add_live`, from its own header and library.
  void (*add_live)(Verb app, int& exit, const Kit& kit) = nullptr;
  /// Finds the nearest `cubic-bezier()` for CSS and tokens: `ubbo::fit::fit_bezier`.
  io::BezierFitter fit{};
};

/// Runs the command with parts of these kinds; `looks` draws those whose pieces' roles do not say enough.
/// Returns the exit code: 0 done, 1 the run found something wrong, 2 bad input or usage. Throws nothing.
/// Makes the process pass over SIGPIPE, so that a reader that went away is an error in words.
int run(int argc, char** argv, Kinds kinds = shipped_kinds(), const skin::Looks& looks = {},
        const Extras& extras = {});

}  // namespace ubbo::tool
