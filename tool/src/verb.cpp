#include "verb.hpp"

#include <CLI/CLI.hpp>
#include <utility>

namespace ubbo::tool {

Option Option::required() const { return Option(of_->required()); }
Option Option::with_default() const { return Option(of_->capture_default_str()); }
Option Option::between(int min, int max) const {
  return Option(of_->check(CLI::Range(min, max).description("")));
}
Option Option::between(double min, double max) const {
  return Option(of_->check(CLI::Range(min, max).description("")));
}
Option Option::delimiter(char by) const { return Option(of_->delimiter(by)); }
Option Option::once() const { return Option(of_->expected(1)); }
Option Option::again() const { return Option(of_->expected(1)->take_all()); }
Option Option::value_name(const std::string& name) const { return Option(of_->type_name(name)); }
Option Option::needs(Option other) const { return Option(of_->needs(other.of_)); }
Option Option::excludes(Option other) const { return Option(of_->excludes(other.of_)); }
Option Option::when_given(std::function<void()> call) const {
  return Option(of_->each([call = std::move(call)](const std::string& /*value*/) { call(); }));
}

Verb Verb::add_verb(const std::string& name, const std::string& means) const {
  return Verb(of_->add_subcommand(name, means));
}
Option Verb::add_option(const std::string& names, std::string& into, const std::string& means) const {
  return Option(of_->add_option(names, into, means));
}
Option Verb::add_option(const std::string& names, std::vector<std::string>& into,
                        const std::string& means) const {
  return Option(of_->add_option(names, into, means));
}
Option Verb::add_option(const std::string& names, std::vector<double>& into, const std::string& means) const {
  return Option(of_->add_option(names, into, means));
}
Option Verb::add_option(const std::string& names, int& into, const std::string& means) const {
  return Option(of_->add_option(names, into, means));
}
Option Verb::add_option(const std::string& names, std::uint64_t& into, const std::string& means) const {
  return Option(of_->add_option(names, into, means));
}
Option Verb::add_option(const std::string& names, double& into, const std::string& means) const {
  return Option(of_->add_option(names, into, means));
}
Option Verb::add_flag(const std::string& names, bool& into, const std::string& means) const {
  return Option(of_->add_flag(names, into, means));
}
void Verb::footer(const std::string& text) const { of_->footer(text); }
void Verb::require_verb() const { of_->require_subcommand(1); }
void Verb::leave_rest() const { of_->prefix_command(); }
std::vector<std::string> Verb::rest() const { return of_->remaining(); }
void Verb::when_called(std::function<void()> call) const { of_->callback(std::move(call)); }

}  // namespace ubbo::tool
