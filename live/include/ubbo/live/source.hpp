#pragma once

#include <map>
#include <string>
#include <vector>

#include "ubbo/parts/kinds.hpp"

namespace ubbo::live {

/// A scene file with its takes and the images that it names, as the page gets them.
class Source {
 public:
  /// `takes`: the folder of its takes; "": the scene's own, where those count that begin with its name.
  Source(std::string scene, std::string takes, Kinds kinds = shipped_kinds());

  [[nodiscard]] const std::string& scene() const { return scene_; }
  /// The scene's name without its folder.
  [[nodiscard]] std::string name() const;
  /// The folders whose files count.
  [[nodiscard]] std::vector<std::string> folders() const;
  /// Whether a file of that name in one of the folders is one of them.
  [[nodiscard]] bool counts(const std::string& folder, const std::string& name) const;

  /// All of it as JSON, read anew: `name`, `text`, `takes`, `images`, `served`. With `inside`, the images are
  /// in it; else they are addresses, `images/NAME`. Throws `io::InputError` when the scene file cannot be
  /// read; what is wrong in it is for the page to say.
  [[nodiscard]] std::string json(bool served, bool inside);
  /// The bytes of an image that the scene names, after `json`; "" where it names none so.
  [[nodiscard]] std::string image(const std::string& name) const;
  /// The images that it names and that are there, after `json`.
  [[nodiscard]] const std::map<std::string, std::string>& images() const { return images_; }

  /// Writes changes into the scene file, as `io::edit_scene` does. Throws `io::InputError` or
  /// `std::runtime_error`, and then the file is as it was.
  void save(const std::vector<std::string>& changes) const;
  /// Keeps a take under a name; where there is one of that name, the new one has a number behind it. Returns
  /// the file's name. Throws as `save` does, and for a take that does not read.
  [[nodiscard]] std::string keep(const std::string& name, const std::string& text) const;

 private:
  [[nodiscard]] std::string stem() const;

  std::string scene_;
  std::string takes_;
  Kinds kinds_;
  std::map<std::string, std::string> images_;  // name to bytes
};

/// `image/png` or the like, by what a name ends in.
[[nodiscard]] const char* type_of(const std::string& name);

}  // namespace ubbo::live
