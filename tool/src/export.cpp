#include <fmt/format.h>

#include <algorithm>
#include <cstdio>
#include <memory>
#include <stdexcept>

#include "commands.hpp"
#include "say.hpp"
#include "ubbo/file/read.hpp"
#include "ubbo/file/whole_file.hpp"
#include "ubbo/io/motion/easing_css.hpp"
#include "ubbo/io/motion/motion_tokens.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/motion/progress.hpp"

namespace ubbo::tool {

namespace {

struct ExportOrder {
  std::vector<std::string> from;
  std::string as = "css";
  std::string name = "motion";
  io::KeyframeTarget target;
  double error = 0.002;
  std::string out;
};

}  // namespace

bool is_token_name(std::string_view text) {
  return !text.empty() && std::all_of(text.begin(), text.end(), [](char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '-' ||
           c == '_' || c == '.';
  });
}

namespace {

// `name=motion`, `name=240ms`, or a file of tokens.
void add(io::MotionTokens& tokens, const std::string& given) {
  const std::size_t equals = given.find('=');
  if (equals == std::string::npos || !is_token_name(std::string_view(given).substr(0, equals))) {
    if (!given.ends_with(".json"))
      throw std::invalid_argument(fmt::format(
          "export: '{}' is not taken; takes NAME=MOTION, NAME=240ms, or a token file that ends in .json",
          given));
    io::MotionTokens read = io::read_tokens(file::read(given), given);
    for (auto& motion : read.motions) tokens.motions.push_back(std::move(motion));
    for (auto& duration : read.durations) tokens.durations.push_back(std::move(duration));
    return;
  }
  const std::string name = given.substr(0, equals);
  const std::string text = given.substr(equals + 1);
  // A time alone is the time of a motion that needs no more.
  if (!text.empty() && (text[0] == '.' || (text[0] >= '0' && text[0] <= '9')))
    tokens.durations.emplace_back(name,
                                  std::get<Timed>(io::read_motion("linear " + text).transition.way).duration);
  else
    tokens.motions.emplace_back(name, io::read_motion(text));
}

std::string keyframes(const io::MotionTokens& tokens, const ExportOrder& order) {
  std::string text;
  for (const auto& [name, spec] : tokens.motions) {
    std::string plain = name;
    std::replace(plain.begin(), plain.end(), '.', '-');
    text += fmt::format("/* {}: play for {}ms, linear */\n", spec.text,
                        io::css_number(to_ms(duration_of(spec.transition.way)), 3));
    text += io::css_keyframes(plain, progress_of(spec.transition.way), order.target, order.error);
  }
  return text;
}

std::string exported(const io::MotionTokens& tokens, const ExportOrder& order, const Kit& kit) {
  if (order.as == "tokens") return io::tokens_json(tokens, kit.fitter());
  if (order.as == "header") return io::tokens_header(tokens, order.name);
  if (order.as == "keyframes") return keyframes(tokens, order);
  return io::tokens_css(tokens, kit.fitter(), order.error);
}

}  // namespace

void add_export(Verb app, int& exit, const Kit& kit) {
  auto order = std::make_shared<ExportOrder>();
  const Verb verb =
      app.add_verb("export", "Write motions with names as CSS, keyframes, design tokens or C++");
  verb.add_option("FROM", order->from,
                  "NAME=MOTION (docs/formats/motion.md), NAME=240ms, or a file of design tokens")
      .required();
  verb.add_option("--as", order->as, "what is written").with_default();
  verb.add_option("--namespace", order->name, "of the C++ header").with_default();
  verb.add_option("--animate", order->target.declaration, "what keyframes set, {} for the number")
      .with_default();
  verb.add_option("--from", order->target.from, "the number at the start of keyframes").with_default();
  verb.add_option("--to", order->target.to, "the number at their end").with_default();
  verb.add_option("--error", order->error,
                  "how far a linear() or keyframes may be off, as a share of the way")
      .between(1e-4, 1.0)
      .with_default();
  verb.add_option("-o,--out", order->out, "file to write; without it the text is printed");
  verb.footer(
      "Example:  ubbo export \"sheet.open=spring(settle 400ms, overshoot 5%)\" \"toast.leave=ease-in 160ms\" "
      "--as tokens\n"
      "Example:  ubbo export heather-ridge/heather-ridge.tokens.json --as header -o motion.hpp\n"
      "Example:  ubbo export \"rise=bounce(out) 600ms\" --as keyframes --animate \"transform: "
      "translateY({}px)\" "
      "--from 40 --to 0");
  verb.when_called([order, &exit, &kit] {
    io::MotionTokens tokens;
    for (const std::string& given : order->from) add(tokens, given);
    const std::string text = exported(tokens, *order, kit);
    if (order->out.empty())
      say("{}", text);
    else {
      file::write_whole(order->out, text);
      say("wrote {}\n", order->out);
    }
    exit = done;
  });
}

}  // namespace ubbo::tool
