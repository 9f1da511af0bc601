#include "ubbo/io/replay/expectation.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "ubbo/io/replay/reading.hpp"
#include "ubbo/io/replay/report.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/number.hpp"
#include "ubbo/words/catalogue.hpp"

namespace ubbo::io {

namespace {

constexpr const char* form =
    R"([at TIME ms] NAME = VALUE [within TOLERANCE], or [at TIME ms [within TIME ms]] says [PART] "WORDS")";

std::string_view bare_words(std::string_view text) {
  const std::size_t from = text.find_first_not_of(" \t");
  if (from == std::string_view::npos) return {};
  return text.substr(from, text.find_last_not_of(" \t") - from + 1);
}

std::optional<double> plain_number_in(std::string_view text) {
  text = bare_words(text);
  const auto value = number_of(text);
  return value && std::isfinite(*value) ? value : std::nullopt;
}

// Parted at commas that stand in no quotes.
std::vector<std::string_view> entries_of(std::string_view list) {
  std::vector<std::string_view> entries;
  bool quoted = false;
  std::size_t from = 0;
  for (std::size_t i = 0; i <= list.size(); ++i) {
    if (i < list.size() && list[i] == '"') quoted = !quoted;
    if (i < list.size() && (list[i] != ',' || quoted)) continue;
    entries.push_back(bare_words(list.substr(from, i - from)));
    from = i + 1;
  }
  return entries;
}

class Entry {
 public:
  Entry(std::string_view text, const std::string& file) : left_(text), file_(file) { made_.text = text; }

  Expectation read() {
    if (word("at")) {
      made_.at = from_ms(time());
      made_.within = 1.0;
      if (word("within")) made_.within = time();
    }
    if (word("says"))
      words();
    else
      value();
    return std::move(made_);
  }

 private:
  [[noreturn]] void refuse(std::string_view why) const {
    throw InputError(
        {.file = file_, .found = fmt::format("the expectation '{}': {}", made_.text, why), .takes = form});
  }
  bool word(std::string_view sought) {
    left_ = bare_words(left_);
    if (!left_.starts_with(sought) || left_.size() == sought.size() || left_[sought.size()] != ' ')
      return false;
    left_ = bare_words(left_.substr(sought.size()));
    return true;
  }
  double time() {
    const std::size_t unit = left_.find("ms");
    const auto read = unit == std::string_view::npos ? std::nullopt : plain_number_in(left_.substr(0, unit));
    if (!read || *read < 0.0) refuse("a time such as 300 ms");
    left_ = bare_words(left_.substr(unit + 2));
    return *read;
  }
  void words() {
    made_.says = true;
    const std::size_t open = left_.find('"');
    if (open == std::string_view::npos || left_.size() < open + 3 || left_.back() != '"')
      refuse("words in quotes");
    made_.name = bare_words(left_.substr(0, open));
    made_.value = left_.substr(open + 1, left_.size() - open - 2);
  }
  void value() {
    const std::size_t equals = left_.find('=');
    if (equals == std::string_view::npos) refuse("no =");
    made_.within = 1e-9;
    made_.name = bare_words(left_.substr(0, equals));
    std::string_view behind = bare_words(left_.substr(equals + 1));
    if (const std::size_t at = behind.rfind(" within "); at != std::string_view::npos) {
      const auto tolerance = plain_number_in(behind.substr(at + 8));
      if (!tolerance || *tolerance < 0.0) refuse("a tolerance of 0 or more behind 'within'");
      made_.within = *tolerance;
      behind = bare_words(behind.substr(0, at));
    }
    made_.value = behind;
    if (made_.name.empty() || made_.value.empty()) refuse("a name and a value");
  }

  std::string_view left_;
  const std::string& file_;
  Expectation made_;
};

class Check {
 public:
  Check(SceneRun& run, Replay& replay) : run_(&run), replay_(&replay) {}

  std::vector<std::string> all(const std::vector<Expectation>& expected) {
    std::vector<const Expectation*> in_order;
    for (const Expectation& one : expected)
      if (!one.says && one.at) in_order.push_back(&one);
    std::stable_sort(in_order.begin(), in_order.end(), [](auto* a, auto* b) { return *a->at < *b->at; });
    for (const Expectation* one : in_order) {
      replay_->play_to(replay_->begins() + *one->at);
      holds(*one);
    }
    replay_->finish();
    for (const Expectation& one : expected) {
      if (one.says)
        said(one);
      else if (!one.at)
        holds(one);
    }
    return std::move(unmet_);
  }

 private:
  void miss(const Expectation& one, const std::string& what) {
    unmet_.push_back(one.at ? fmt::format("at {} ms {}", plain(to_ms(*one.at)), what) : what);
  }

  [[nodiscard]] std::string place_of(const Expectation& one) const {
    return fmt::format("{}: the expectation '{}'", replay_->take().file, one.text);
  }

  [[noreturn]] void refuse(const Expectation& one, std::string_view takes) const {
    throw InputError(
        {.file = place_of(one), .found = fmt::format("'{}'", one.value), .takes = std::string(takes)});
  }

  void holds(const Expectation& one) {
    if (const SceneRun::Named* cell = run_->find_cell(one.name)) return cell_holds(one, cell->value());
    for (const Reading& reading : find_readings(*run_, place_of(one), one.name)) {
      const ReadingValue now = reading.value();
      if (std::holds_alternative<std::string>(now)) {
        if (shown(now) != one.value)
          miss(one, fmt::format("{} is '{}', not '{}'", reading.name, shown(now), one.value));
        continue;
      }
      const auto wanted = one.value == "yes"  ? 1.0
                          : one.value == "no" ? 0.0
                                              : plain_number_in(one.value).value_or(NAN);
      if (std::isnan(wanted)) refuse(one, std::holds_alternative<bool>(now) ? "yes or no" : "a number");
      if (!(std::fabs(reading.now() - wanted) <= one.within))
        miss(one, fmt::format("{} is {}, not {}", reading.name, shown(now), one.value));
    }
  }

  void cell_holds(const Expectation& one, const CellValue& held) {
    const auto wanted = read_value(one.value, held);
    if (!wanted) refuse(one, what_value_takes(held));
    const auto* a = std::get_if<double>(&held);
    const auto* b = std::get_if<double>(&*wanted);
    const bool same =
        a != nullptr && b != nullptr ? std::fabs(*a - *b) <= one.within : same_value(held, *wanted);
    if (!same) miss(one, fmt::format("{} is {}, not {}", one.name, shown(held), shown(*wanted)));
  }

  void said(const Expectation& one) {
    if (!one.name.empty()) demand_part(*run_, place_of(one), one.name);
    std::string nearest;
    for (const Decision& decision : replay_->decisions()) {
      if (!one.name.empty() && decision.part != one.name) continue;
      if (decision.answer->name != one.value &&
          words::sentence(decision).find(one.value) == std::string::npos &&
          words::caption(decision).find(one.value) == std::string::npos)
        continue;
      const double when = to_ms(decision.time - replay_->begins());
      if (!one.at || std::fabs(when - to_ms(*one.at)) <= one.within) return;
      nearest += fmt::format("{}{} ms", nearest.empty() ? "; it is said at " : ", ", plain(when));
    }
    miss(one, fmt::format("{} \"{}\"{}", one.name.empty() ? "nobody says" : one.name + " does not say",
                          one.value, nearest));
  }

  SceneRun* run_;
  Replay* replay_;
  std::vector<std::string> unmet_;
};

}  // namespace

std::vector<Expectation> expectations_of(const Take& take) {
  std::vector<Expectation> made;
  for (const auto& [key, value] : take.notes)
    if (key == "expectation")
      for (const std::string_view entry : entries_of(value)) made.push_back(Entry(entry, take.file).read());
  return made;
}

std::vector<std::string> play_and_check(SceneRun& run, Replay& replay,
                                        const std::vector<Expectation>& expected) {
  return Check(run, replay).all(expected);
}

std::vector<std::string> unknown_notes(const Take& take) {
  constexpr std::array<std::string_view, 7> known{"expectation", "scene",  "label", "screen",
                                                  "hand",        "device", "state"};
  std::vector<std::string> unknown;
  for (const auto& [key, value] : take.notes) {
    if (std::find(known.begin(), known.end(), key) != known.end()) continue;
    const std::string nearest = nearest_name(key, known);
    unknown.push_back(fmt::format("the note '{}' means nothing here; known: {}{}", key,
                                  fmt::join(known, ", "),
                                  nearest.empty() ? "" : "; nearest known: " + nearest));
  }
  return unknown;
}

}  // namespace ubbo::io
