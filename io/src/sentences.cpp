#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <string_view>

#include "ubbo/io/report.hpp"

namespace ubbo::io {

namespace {

// At most one decimal for what is measured, three significant more for bare numbers.
std::string shown(double value, const char* unit) {
  if (*unit == '\0') return fmt::format("{:.4g}", value == 0.0 ? 0.0 : value);
  const double rounded = std::round(value * 10.0) / 10.0;
  return fmt::format("{} {}", rounded == 0.0 ? 0.0 : rounded, unit);
}

// The facts of one decision by name.
class Facts {
 public:
  explicit Facts(const Decision& decision) : decision_(&decision) {}

  [[nodiscard]] const Fact& get(std::string_view name) const {
    static const Fact missing{};
    const auto all = decision_->all_facts();
    const auto found = std::find_if(all.begin(), all.end(), [name](const Fact& f) { return name == f.name; });
    return found == all.end() ? missing : *found;
  }
  [[nodiscard]] std::string value(std::string_view name) const {
    const Fact& fact = get(name);
    return shown(fact.value, fact.unit);
  }
  [[nodiscard]] std::string limit(std::string_view name) const {
    const Fact& fact = get(name);
    return shown(fact.limit, fact.unit);
  }
  [[nodiscard]] std::string margin(std::string_view name) const {
    const Fact& fact = get(name);
    return shown(std::fabs(fact.margin), fact.unit);
  }
  [[nodiscard]] double number(std::string_view name) const { return get(name).value; }

 private:
  const Decision* decision_;
};

std::string any_sentence(const Decision& decision) {
  std::string text = fmt::format("{} {}", decision.question, decision.answer);
  const char* joint = ": ";
  for (const Fact& fact : decision.all_facts()) {
    text += fmt::format("{}{} {}", joint, fact.name, shown(fact.value, fact.unit));
    if (!std::isnan(fact.limit)) text += fmt::format(" against {}", shown(fact.limit, fact.unit));
    joint = ", ";
  }
  return text;
}

std::string owner_sentence(const Decision& decision, const Facts& facts) {
  const std::string where =
      fmt::format("a contact went down at ({:.4g}, {:.4g})", facts.number("x"), facts.number("y"));
  if (decision.part.empty()) return where + ": no part is there, so nobody gets it";
  const std::string inside = fmt::format("{} inside {}", facts.value("inside by"), decision.part);
  if (decision.answer != decision.part) return fmt::format("{}, {}: {}", where, inside, decision.answer);
  return fmt::format("{}, {}: {} has it until it ends", where, inside, decision.part);
}

std::string drag_sentence(const Facts& facts) {
  return fmt::format(
      "a drag began {} after the contact went down: {} of travel passed the threshold of {}, by {}",
      facts.value("after"), facts.value("travel"), facts.limit("travel"), facts.margin("travel"));
}

std::string tap_sentence(const Facts& facts) {
  if (facts.get("strayed").margin >= 0.0)
    return fmt::format("it was a tap: it strayed {} of the {} a tap may, and lifted after {}",
                       facts.value("strayed"), facts.limit("strayed"), facts.value("held"));
  return fmt::format("it was no tap: it strayed {}, {} more than a tap may", facts.value("strayed"),
                     facts.margin("strayed"));
}

std::string speed_sentence(const Facts& facts) {
  if (facts.get("rested").margin > 0.0)
    return fmt::format("it lifted while moving at {}: it had rested {}, and {} would have made it still",
                       facts.value("velocity"), facts.value("rested"), facts.limit("rested"));
  return fmt::format("it lifted at rest: it had not moved for {}, and {} are enough", facts.value("rested"),
                     facts.limit("rested"));
}

std::string landing_sentence(const Decision& decision, const Facts& facts) {
  const std::string place = facts.value("place");
  if (decision.fact_count < 2)
    return fmt::format("it stays where it was let go, at {}: there are no snap points", place);
  const Fact& distance = facts.get("distance");
  if (distance.margin == 0.0)
    return fmt::format("it landed on {}: {} lies half-way to {}, and the later one wins a tie", place,
                       facts.value("aimed"), facts.value("other"));
  return fmt::format("it landed on {} since {} is nearest to it: {} away, against {} to {}, the next choice",
                     place, facts.value("aimed"), facts.value("distance"), facts.limit("distance"),
                     facts.value("other"));
}

std::string again_sentence(const Decision& decision, const Facts& facts) {
  if (decision.answer == "yes")
    return fmt::format(
        "it belongs to the tap before: it came {} after that one's lift, of {} allowed, and {} from it, of "
        "{}",
        facts.value("gap"), facts.limit("gap"), facts.value("apart"), facts.limit("apart"));
  const bool late = facts.get("gap").margin < 0.0;
  const char* what = late ? "gap" : "apart";
  return fmt::format("it does not belong to the tap before: it came {} {}, {} more than the {} allowed",
                     facts.value(what), late ? "after that one's lift" : "away from it", facts.margin(what),
                     facts.limit(what));
}

std::string told_sentence(const Decision& decision, const Facts& facts) {
  const double taps = facts.number("taps");
  const std::string row = taps == 1.0 ? "the tap" : fmt::format("{:.0f} taps in a row", taps);
  if (facts.number("waited") == 0.0) return row + (taps == 1.0 ? " was told at once" : " were told at once");
  return fmt::format("{} told {}: the wait cost {}", taps == 1.0 ? "the tap was" : row + " were",
                     decision.answer, facts.value("waited"));
}

std::string flick_sentence(const Facts& facts) {
  const bool rested = facts.get("rested").margin <= 0.0;
  if (rested)
    return fmt::format("it was a drag, no flick: it had rested {} before the lift, and {} are enough",
                       facts.value("rested"), facts.limit("rested"));
  const bool fast = facts.get("speed").margin >= 0.0;
  return fmt::format("it was {}: it lifted at {}, {} {} than the {} of a flick",
                     fast ? "a flick" : "a drag, no flick", facts.value("speed"), facts.margin("speed"),
                     fast ? "more" : "less", facts.limit("speed"));
}

std::string axis_sentence(const Decision& decision, const Facts& facts) {
  if (decision.answer == "none")
    return fmt::format("it keeps to no axis: it began {} off the nearer one, {} more than the lock holds",
                       facts.value("off axis"), facts.margin("off axis"));
  return fmt::format("it keeps to the {} axis: it began {} off it, and up to {} are held", decision.answer,
                     facts.value("off axis"), facts.limit("off axis"));
}

std::string pair_sentence(const Decision& decision, const Facts& facts) {
  return fmt::format(
      "two contacts began to {}: their distance changed by {} of {}, they turned by {} of {}, and moved by "
      "{} of {}",
      decision.answer, facts.value("pinch"), facts.limit("pinch"), facts.value("turn"), facts.limit("turn"),
      facts.value("pan"), facts.limit("pan"));
}

std::string contest_sentence(const Decision& decision, const Facts& facts) {
  if (decision.answer == decision.part)
    return fmt::format(
        "{} wins the contact from {:.0f} rivals: {} along its axis passed the threshold of {}, by {}, with "
        "{} across",
        decision.part, facts.number("rivals"), facts.value("along"), facts.limit("along"),
        facts.margin("along"), facts.value("across"));
  const std::string_view why =
      decision.answer.starts_with("no, ") ? decision.answer.substr(4) : decision.answer;
  return fmt::format("{} does not win the contact: {}", decision.part, why);
}

}  // namespace

std::string sentence(const Decision& decision) {
  const Facts facts(decision);
  const std::string_view question = decision.question;
  if (question == questions::owner) return owner_sentence(decision, facts);
  if (question == questions::drag) return drag_sentence(facts);
  if (question == questions::tap) return tap_sentence(facts);
  if (question == questions::speed) return speed_sentence(facts);
  if (question == questions::landing) return landing_sentence(decision, facts);
  if (question == questions::rest) return fmt::format("it is at rest on {}", facts.value("value"));
  if (question == questions::again) return again_sentence(decision, facts);
  if (question == questions::tap_told) return told_sentence(decision, facts);
  if (question == questions::hold)
    return fmt::format("it is a long press: it was down for {} and strayed {} of the {} it may",
                       facts.value("held"), facts.value("strayed"), facts.limit("strayed"));
  if (question == questions::flick) return flick_sentence(facts);
  if (question == questions::axis) return axis_sentence(decision, facts);
  if (question == questions::edge)
    return fmt::format("it is an edge swipe: it began {} from the edge, of {} allowed",
                       facts.value("from the edge"), facts.limit("from the edge"));
  if (question == questions::pair) return pair_sentence(decision, facts);
  if (question == questions::contest) return contest_sentence(decision, facts);
  if (question == questions::hand_over)
    return fmt::format("{} goes on with the contact: the part before it was at its end, with {} left over",
                       decision.part, facts.value("left over"));
  if (question == questions::cancelled)
    return fmt::format("the contact was cancelled: it goes back from {} to {}", facts.value("from"),
                       facts.value("to"));
  if (question == questions::sound)
    return fmt::format("a sample of contact {:.0f} was bad: {}", facts.number("contact"), decision.answer);
  return any_sentence(decision);
}

std::string caption(const Decision& decision) {
  const Facts facts(decision);
  const std::string_view question = decision.question;
  const bool yes = decision.answer.substr(0, 2) != "no";
  if (question == questions::owner)
    return decision.part.empty() ? "nobody takes it" : fmt::format("{} takes it", decision.part);
  if (question == questions::drag)
    return fmt::format("drag: {} of {}", shown(facts.number("travel"), ""), facts.limit("travel"));
  if (question == questions::tap) return yes ? "tap" : "no tap";
  if (question == questions::speed)
    return yes ? fmt::format("lifts at {}", facts.value("velocity")) : "lifts at rest";
  if (question == questions::landing)
    return fmt::format("{} {}", decision.fact_count < 2 ? "stays at" : "lands on", facts.value("place"));
  if (question == questions::rest) return fmt::format("at rest on {}", facts.value("value"));
  if (question == questions::cancelled) return "cancelled";
  if (question == questions::again) return yes ? "second tap" : fmt::format("{}", decision.answer.substr(4));
  if (question == questions::tap_told) return fmt::format("told: {:.0f}", facts.number("taps"));
  if (question == questions::hold) return "long press";
  if (question == questions::flick) return yes ? "flick" : "no flick";
  if (question == questions::axis) return fmt::format("axis: {}", decision.answer);
  if (question == questions::edge) return "edge swipe";
  if (question == questions::pair) return std::string(decision.answer);
  if (question == questions::contest) return yes ? fmt::format("{} wins", decision.part) : "";
  if (question == questions::hand_over) return fmt::format("{} goes on", decision.part);
  if (question == questions::sound) return "bad sample";
  return std::string(decision.answer);
}

std::string why_text(const Replay& replay, std::string_view part) {
  std::string text;
  std::size_t number = 0;
  for (const Decision& decision : replay.decisions()) {
    if (!part.empty() && decision.part != part) continue;
    text += fmt::format("{:3}. {:>9.1f} ms  {:<12}  {}.\n", ++number, to_ms(decision.time),
                        decision.part.empty() ? "stage" : decision.part, sentence(decision));
  }
  if (number == 0) text = "no decisions\n";
  return text;
}

}  // namespace ubbo::io
