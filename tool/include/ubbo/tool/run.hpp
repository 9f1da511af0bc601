#pragma once

#include "ubbo/parts/kinds.hpp"
#include "ubbo/skin/comb.hpp"

/// The `ubbo` command, for an app that has parts of its own.
namespace ubbo::tool {

/// Runs the command with parts of these kinds; `looks` draws those whose pieces' roles do not say enough.
/// Returns the exit code: 0 done, 1 the run found something wrong, 2 bad input or usage. Throws nothing.
/// Makes the process pass over SIGPIPE, so that a reader that went away is an error in words.
int run(int argc, char** argv, Kinds kinds = shipped_kinds(), const skin::Looks& looks = {});

}  // namespace ubbo::tool
