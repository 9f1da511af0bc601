#pragma once

#include <span>
#include <string>
#include <vector>

#include "ubbo/io/scene/scene.hpp"

namespace ubbo::check {

/// A kind of fault that can be seen in a scene without running it.
struct Rule {
  const char* name;   ///< what silences and reports call it, such as "small-target"
  const char* means;  ///< one line: what it is, and why it matters
};

/// All rules, in the order of the documentation.
[[nodiscard]] std::span<const Rule> check_rules();

/// One fault found in a scene.
struct Finding {
  const Rule* rule = nullptr;
  std::string of{};        ///< the part, cell or feel it is about
  io::FilePlace place{};   ///< in the scene's file
  std::string found{};     ///< what is wrong, with its numbers
  std::string remedy{};    ///< what to do
  std::string silenced{};  ///< the reason with which the scene silences it; "": it does not
};

/// The faults of a scene, in the order of the file. A silence of the scene that silences nothing, or names no
/// rule, is one too. Whether texts fit is checked when `measure` is given.
[[nodiscard]] std::vector<Finding> check_scene(const io::Scene& scene, const TextWidth& measure = {});

/// The faults of a scene's text. What cannot be read is a finding for each reason, and the rest is checked as
/// far as it can be read.
[[nodiscard]] std::vector<Finding> check_text(std::string_view text, const std::string& name,
                                              Kinds kinds = shipped_kinds(),
                                              std::span<const std::string> changes = {},
                                              const TextWidth& measure = {});

/// Findings as JSON, or in the static analysis results format of OASIS, SARIF 2.1.0, for editors and CI.
[[nodiscard]] std::string findings_json(const std::string& file, const std::vector<Finding>& findings);
[[nodiscard]] std::string findings_sarif(const std::string& file, const std::vector<Finding>& findings);

}  // namespace ubbo::check
