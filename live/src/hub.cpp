#include "hub.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <utility>

#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/json.hpp"

namespace ubbo::live {

namespace {

using io::Json;

// The text of a key, or a refusal in words.
const std::string& text_in(const Json& object, const char* key) {
  const Json* found = object.find(key);
  if (found == nullptr || !found->is_string())
    throw io::InputError(
        {.file = "message", .found = fmt::format("no text '{}'", key), .takes = "an object with it"});
  return found->text();
}

const Json& list_in(const Json& object, const char* key) {
  const Json* found = object.find(key);
  if (found == nullptr || !found->is_array())
    throw io::InputError(
        {.file = "message", .found = fmt::format("no list '{}'", key), .takes = "an object with it"});
  return *found;
}

}  // namespace

Hub::Hub(Source& source, Send send, Log log)
    : source_(&source), send_(std::move(send)), log_(std::move(log)), scene_(source.json(true, false)) {}

void Hub::join(Viewer viewer) {
  viewers_.push_back(viewer);
  log_(fmt::format("viewer {} has come; {} in all", viewer, viewers_.size()));
  if (changes_ != "[]") send(viewer, fmt::format(R"({{"what":"changes","changes":{}}})", changes_));
  tell_viewers();
  tell_turn();
}

void Hub::leave(Viewer viewer) {
  const auto found = std::find(viewers_.begin(), viewers_.end(), viewer);
  if (found == viewers_.end()) return;
  viewers_.erase(found);
  log_(fmt::format("viewer {} has gone; {} left", viewer, viewers_.size()));
  if (turn_ == viewer) {
    turn_ = 0;
    tell_turn();
  }
  tell_viewers();
}

void Hub::hear(Viewer viewer, std::string_view text) {
  try {
    const Json said = io::read_json(text, "message");
    if (!said.is_object())
      throw io::InputError({.file = "message", .found = "no object", .takes = "one with 'what'"});
    const std::string& what = text_in(said, "what");
    if (what == "given") {
      const Json& given = list_in(said, "given");
      if (turn_ != 0 && turn_ != viewer) {
        send(viewer, R"({"what":"turn","whose":"others"})");
        return;
      }
      if (turn_ == 0) {
        turn_ = viewer;
        tell_turn();
      }
      to_others(viewer, io::json_text(Json{{"what", "given"}, {"given", given}}, -1));
    } else if (what == "rests") {
      if (turn_ != viewer) return;
      turn_ = 0;
      tell_turn();
    } else if (what == "changes") {
      for (const Json& change : list_in(said, "changes"))
        if (!change.is_array() || change.size() != 2 || !change[0].is_string() || !change[1].is_string())
          throw io::InputError({.file = "message",
                                .found = "a change that is none",
                                .takes = "pairs of a setting and a value"});
      const std::string changes = io::json_text(said.at("changes"), -1);
      if (changes == changes_) return;
      changes_ = changes;
      to_others(viewer, fmt::format(R"({{"what":"changes","changes":{}}})", changes_));
    } else if (what == "save") {
      std::vector<std::string> changes;
      for (const Json& change : list_in(said, "changes")) {
        if (!change.is_array() || change.size() != 2 || !change[0].is_string() || !change[1].is_string())
          throw io::InputError({.file = "message",
                                .found = "a change that is none",
                                .takes = "pairs of a setting and a value"});
        changes.push_back(change[0].text() + "=" + change[1].text());
      }
      source_->save(changes);
      log_(fmt::format("{} changes written to {}", changes.size(), source_->scene()));
      send(viewer, io::json_text(Json{{"what", "saved"}, {"name", source_->name()}}, -1));
      files_changed();
      // They stand in the file now.
      changes_ = "[]";
      to_all(R"({"what":"changes","changes":[]})");
    } else if (what == "keep") {
      const std::string file = source_->keep(text_in(said, "name"), text_in(said, "text"));
      log_("kept " + file);
      send(viewer, io::json_text(Json{{"what", "saved"}, {"name", file}}, -1));
    } else {
      throw io::InputError({.file = "message",
                            .found = fmt::format("'{}'", what),
                            .takes = "given, rests, changes, save or keep"});
    }
  } catch (const std::exception& wrong) {
    refuse(viewer, wrong.what());
  }
}

void Hub::files_changed() {
  std::string now;
  try {
    now = source_->json(true, false);
  } catch (const std::exception& wrong) {
    log_(fmt::format("not read: {}", wrong.what()));  // an editor may be writing it; what was there stays
    return;
  }
  if (now == scene_) return;
  scene_ = std::move(now);
  log_("read anew: " + source_->scene());
  to_all(fmt::format(R"({{"what":"scene","source":{}}})", scene_));
}

void Hub::tell_turn() {
  for (const Viewer viewer : viewers_)
    send(viewer, fmt::format(R"({{"what":"turn","whose":"{}"}})", turn_ == 0        ? "free"
                                                                  : turn_ == viewer ? "yours"
                                                                                    : "others"));
}

void Hub::tell_viewers() { to_all(fmt::format(R"({{"what":"viewers","count":{}}})", viewers_.size())); }

void Hub::to_others(Viewer viewer, std::string text) {
  const Text shared = std::make_shared<const std::string>(std::move(text));
  for (const Viewer other : viewers_)
    if (other != viewer) send_(other, shared);
}

void Hub::refuse(Viewer viewer, const std::string& why) {
  log_(fmt::format("viewer {}: {}", viewer, why));
  send(viewer, io::json_text(Json{{"what", "refused"}, {"why", why}}, -1));
}

}  // namespace ubbo::live
