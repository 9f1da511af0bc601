#pragma once

#include <cstdint>
#include <functional>
#include <string>
#include <vector>

namespace CLI {
class App;
class Option;
}  // namespace CLI

namespace ubbo::tool {

/// An option of a verb. What the user gives goes into the variable with which it was added.
class Option {
 public:
  explicit Option(CLI::Option* of) : of_(of) {}

  Option required() const;
  /// The help names the value that the variable has now.
  Option with_default() const;
  Option between(int min, int max) const;
  Option between(double min, double max) const;
  /// A list in one word.
  Option delimiter(char by) const;
  Option once() const;
  /// May be given again, with one value each time.
  Option again() const;
  Option value_name(const std::string& name) const;
  Option needs(Option other) const;
  Option excludes(Option other) const;
  /// Calls back where the option is given.
  Option when_given(std::function<void()> call) const;

 private:
  CLI::Option* of_;
};

/// A command of the command line, such as `film`, or `make` below `take`. Copies speak of the same command.
class Verb {
 public:
  explicit Verb(CLI::App* of) : of_(of) {}

  /// Adds a verb below this one.
  Verb add_verb(const std::string& name, const std::string& means) const;
  Option add_option(const std::string& names, std::string& into, const std::string& means) const;
  Option add_option(const std::string& names, std::vector<std::string>& into, const std::string& means) const;
  Option add_option(const std::string& names, std::vector<double>& into, const std::string& means) const;
  Option add_option(const std::string& names, int& into, const std::string& means) const;
  Option add_option(const std::string& names, std::uint64_t& into, const std::string& means) const;
  Option add_option(const std::string& names, double& into, const std::string& means) const;
  Option add_flag(const std::string& names, bool& into, const std::string& means) const;
  /// What the help ends with.
  void footer(const std::string& text) const;
  /// One of the verbs below must follow.
  void require_verb() const;
  /// What follows belongs to another command.
  void leave_rest() const;
  [[nodiscard]] std::vector<std::string> rest() const;
  void when_called(std::function<void()> call) const;

  [[nodiscard]] CLI::App& app() const { return *of_; }

 private:
  CLI::App* of_;
};

}  // namespace ubbo::tool
