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

}  // namespace

std::string sentence(const Decision& decision) {
  const Facts facts(decision);
  const std::string_view question = decision.question;
  if (question == questions::owner) return owner_sentence(decision, facts);
  if (question == questions::drag) return drag_sentence(facts);
  if (question == questions::tap) return tap_sentence(facts);
  if (question == questions::speed) return speed_sentence(facts);
  if (question == questions::landing) return landing_sentence(decision, facts);
  if (question == questions::rest) return fmt::format("the thumb is at rest on {}", facts.value("value"));
  if (question == questions::cancelled)
    return fmt::format("the contact was cancelled: the thumb goes back from {} to {}", facts.value("from"),
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
  if (question == questions::landing) return fmt::format("lands on {}", facts.value("place"));
  if (question == questions::rest) return fmt::format("at rest on {}", facts.value("value"));
  if (question == questions::cancelled) return "cancelled";
  if (question == questions::sound) return "bad sample";
  return std::string(decision.answer);
}

std::string why_text(const Replay& replay, std::string_view part) {
  std::string text;
  std::size_t number = 0;
  for (const Decision& decision : replay.decisions()) {
    if (!part.empty() && decision.part != part) continue;
    text += fmt::format("{:3}. {:>9.1f} ms  {:<10}  {}.\n", ++number, to_ms(decision.time),
                        decision.part.empty() ? "stage" : decision.part, sentence(decision));
  }
  if (number == 0) text = "no decisions\n";
  return text;
}

}  // namespace ubbo::io
