// Changes written into a scene's text: only the characters of the values change.
#include <array>
#include <filesystem>
#include <string>
#include <utility>
#include <vector>

#include "files.hpp"
#include "ubbo/io/scene/scene_edit.hpp"
#include "ubbo/io/scene/setting_text.hpp"
#include "ubbo/io/text/base64.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/testing/check.hpp"

namespace {

using ubbo::io::edit_scene;

std::string edited(const std::string& text, const std::string& change) {
  const std::vector<std::string> changes{change};
  return edit_scene(text, "a.scene.toml", changes);
}

constexpr const char* ridge = R"(# a scene
title = "Ridge"   # its name
feel = "gloved"
[cells]
frames = 4        # of honey
[[part]]
id = "frames"
kind = "slider"
box = [0, 0, 280, 48]
value = "frames"
to = 10   # no more
)";

}  // namespace

TEST_CASE("a value that is said changes in its place, one that is not comes on a line of its own") {
  const std::string text = ridge;
  const auto with = [&](const std::string& was, const std::string& is) {
    std::string made = text;
    return made.replace(made.find(was), was.size(), is);
  };
  CHECK(edited(text, "frames.to=12") == with("to = 10   #", "to = 12   #"));
  CHECK(edited(text, "cells.frames=7") == with("frames = 4  ", "frames = 7  "));
  CHECK(edited(text, "frames.label=of \"honey\"") == text + "label = \"of \\\"honey\\\"\"\n");
  CHECK(edited(text, "feel.drag_threshold=8") ==
        with("feel = \"gloved\"", "feel = { like = \"gloved\", drag_threshold = 8 }"));
  CHECK(edited(text, "screen.width=411") == text + "\n[screen]\nwidth = 411\n");
  // One after another, and back again.
  CHECK(edited(edited(text, "frames.step=2"), "frames.step=3") == text + "step = 3\n");
  CHECK_THROWS_AS(edited(text, "frames.step=-3"), ubbo::io::InputError);
  CHECK_THROWS_AS(edited(text, "framez.step=3"), ubbo::io::InputError);
}

TEST_CASE(
    "what comes from a template is written for the one part, where its entry says what it has of its own") {
  const std::string text = R"([template.hive]
kind = "pane"
[[template.hive.part]]
id = "name"
kind = "pad"
box = [0, 0, "100%", "100%"]
[[part]]
template = "hive"
each = [   # two of them
  { id = "heather", box = [0, 0, 300, 60] },   # near
  { id = "ridge", box = [0, 60, 300, 60], name = { label = "Ridge" } },
]
)";
  const auto with = [&](const std::string& was, const std::string& is) {
    std::string made = text;
    return made.replace(made.find(was), was.size(), is);
  };
  CHECK(edited(text, "heather.max=40") == with("60] },   # near", "60], max = 40 },   # near"));
  CHECK(edited(text, "heather-name.gestures.taps=3") ==
        with("60] },   # near", "60], name.gestures.taps = 3 },   # near"));
  CHECK(edited(text, "ridge-name.gestures.taps=3") == with("\"Ridge\" }", "\"Ridge\", gestures.taps = 3 }"));
}

TEST_CASE("in every scene of the demo any number may be written, and nothing else is said otherwise") {
  std::size_t written = 0;
  for (const auto& entry : std::filesystem::directory_iterator(ubbo::test::demo)) {
    const std::string path = entry.path().string();
    if (!path.ends_with(".scene.toml")) continue;
    const std::string text = ubbo::file::read(path);
    const ubbo::io::Scene read = ubbo::io::parse_scene(text, path);
    for (const ubbo::io::PartPlan& part : read.parts) {
      if (part.id.empty()) continue;
      for (std::size_t i = 0; i < part.kind->settings(); i += 2) {
        const ubbo::SettingInfo& setting = part.kind->setting(i);
        if (setting.kind != ubbo::SettingKind::number && setting.kind != ubbo::SettingKind::time) continue;
        const std::string value = ubbo::io::setting_text(setting, part.kind->get(part.settings, i));
        const std::vector<std::string> change{part.id + "." + setting.name + "=" + value};
        CAPTURE(path, change[0]);
        const std::string now = edit_scene(text, path, change);
        ++written;
        // Every line that there was is there, but for one that may have got another value.
        std::size_t gone = 0;
        std::size_t begin = 0;
        while (begin < text.size()) {
          const std::size_t end = std::min(text.find('\n', begin), text.size());
          if (now.find(text.substr(begin, end - begin)) == std::string::npos) ++gone;
          begin = end + 1;
        }
        CHECK(gone <= 1);
      }
    }
  }
  CHECK(written > 100);
}

TEST_CASE("bytes as text, as RFC 4648 has them, and back") {
  const auto coded = [](const std::string& text) {
    return ubbo::io::to_base64({reinterpret_cast<const std::uint8_t*>(text.data()), text.size()});
  };
  const std::array<std::pair<const char*, const char*>, 7> known{{{"", ""},
                                                                  {"f", "Zg=="},
                                                                  {"fo", "Zm8="},
                                                                  {"foo", "Zm9v"},
                                                                  {"foob", "Zm9vYg=="},
                                                                  {"fooba", "Zm9vYmE="},
                                                                  {"foobar", "Zm9vYmFy"}}};
  for (const auto& [text, code] : known) CHECK(coded(text) == code);
  PROPERTY("back", [](const std::vector<std::uint8_t>& bytes) {
    RC_ASSERT(ubbo::io::from_base64(ubbo::io::to_base64(bytes)) == bytes);
  });
  for (const char* none : {"Z", "Zg=", "Zg", "Zh==", "Z===", "====", "Zm9 ", "Zm9\n", "=Zm9"})
    CHECK_FALSE(ubbo::io::from_base64(none).has_value());
}
