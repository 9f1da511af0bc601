#include <nlohmann/json.hpp>

#include "ubbo/fit/bezier_fit.hpp"
#include "ubbo/io/motion/curve_report.hpp"
#include "ubbo/io/motion/easing_css.hpp"
#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/io/motion/motion_tokens.hpp"
#include "ubbo/io/scene/scene.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

Curve curve(std::string_view text) { return std::get<Timed>(io::read_motion(text).transition.way).curve; }

// The same curve, looked at within and without.
bool same(const Curve& a, const Curve& b, double margin = 1e-9) {
  for (int i = -30; i <= 130; ++i)
    if (!(std::fabs(a.value(i / 100.0) - b.value(i / 100.0)) <= margin)) return false;
  return true;
}

}  // namespace

TEST_CASE("a spec is the curve its words say, by CSS's own grammar and ours") {
  struct Case {
    const char* text;
    Curve is;
  };
  for (const Case& c : {
           Case{"linear", Curve{}},
           {"EASE-In", Curve::ease_in()},
           {"  ease /* as\never */ ", Curve::ease()},
           {"step-start", Curve::steps(1, Jump::start)},
           {"cubic-bezier(.25,+0.1 , 2.5e-1, 1)", Curve::ease()},
           {"Steps( 3 )", Curve::steps(3)},
           {"steps(3, start)", Curve::steps(3, Jump::start)},
           {"steps(3,jump-both)", Curve::steps(3, Jump::both)},
           {"linear(0, 0.5 20% 40%, 1)", Curve::stops({{0}, {0.5, 0.2}, {0.5, 0.4}, {1}})},
           {"linear(0, 20% .5,-1.5 90%,1)", Curve::stops({{0}, {0.5, 0.2}, {-1.5, 0.9}, {1}})},
           {"quart(in-out)", Curve::family(Family::quart, Ease::in_out)},
           {"back(out, overshoot 25%)", Curve::family(Family::back, Ease::out, {.overshoot = 0.25})},
           {"elastic(in, swings 2)", Curve::family(Family::elastic, Ease::in, {.swings = 2})},
           {"bounce(out, keeps 0.5, bounces 2)",
            Curve::family(Family::bounce, Ease::out, {.bounces = 2, .keeps = 0.5})},
           {"through(0 0, 30% 0.8, 1 1)", Curve::through({{0, 0}, {0.3, 0.8}, {1, 1}})},
           {"through(0 0, 30% 0.8, 1 1, free)", Curve::through({{0, 0}, {0.3, 0.8}, {1, 1}}, Between::free)},
           {"joined(ease-in until 40% to 0.7, linear)",
            Curve::joined({{Curve::ease_in(), 0.4, 0.7}, {Curve{}, 1, 1}})},
           {"reversed(ease-in)", Curve::ease_in().reversed()},
           {"mirrored(reversed(quad(in)))", Curve::family(Family::quad, Ease::out).mirrored()},
           {"limited(back(out), 0, 1.05)", Curve::family(Family::back, Ease::out).limited(0, 1.05)},
       }) {
    CAPTURE(c.text);
    CHECK(same(curve(c.text), c.is));
  }
  const auto spring = [](std::string_view text) {
    return std::get<Spring>(io::read_motion(text).transition.way);
  };
  CHECK(spring("spring(damping 30, stiffness 320)").ratio() == Approx(30 / (2 * std::sqrt(320))));
  CHECK(spring("spring(ratio 0.6, frequency 12)").frequency() == 12);
  CHECK(spring("spring(settle 0.4s, overshoot 5%)").overshoot() == Approx(0.05));
  CHECK(std::get<Coast>(io::read_motion("coast(half-life 170ms)").transition.way).half_life() ==
        Approx(0.17));
  const Transition all = io::read_transition("ease-out .24s after 80ms repeat 3 alternate");
  CHECK(std::get<Timed>(all.way).duration == ms(240));
  CHECK(all.delay == ms(80));
  CHECK(all.runs == 3);
  CHECK(all.alternate);
  CHECK(io::read_transition("linear 1s repeat endless").runs == Transition::endless);
}

TEST_CASE("a wrong spec: the character, what stands there, what is taken, and a right one") {
  struct Case {
    const char* text;
    std::size_t at;
    const char* found;
    const char* takes;
  };
  for (const Case& c : {
           Case{"", 0, "nothing", "a motion"},
           {"eas-out", 0, "'eas-out'", "nearest known: ease-out"},
           {"spring(mass 1, stifness 320, damping 30)", 15, "'stifness'", "nearest known: stiffness"},
           {"spring(mass 1, ratio 3)", 15, "'ratio' beside 'mass'", "three ways"},
           {"spring(mass 1, damping 26)", 25, "without 'stiffness'", "stiffness"},
           {"spring(settle 400)", 14, "'400'", "240ms"},
           {"spring(settle 400ms, overshoot 120%)", 31, "'120%'", "0 to 0.95"},
           {"cubic-bezier(0, 0, 1.2, 1)", 19, "x2 = '1.2'", "0 to 1"},
           {"cubic-bezier(0, 0, 1)", 20, "')'", "y2"},
           {"cubic-bezier(0, 0, 1, 1, 1)", 23, "','", "')'"},
           {"steps(2.5)", 6, "'2.5'", "whole number"},
           {"steps(1, jump-none)", 6, "'1'", "2 to 1000000"},
           {"steps(4, jump-nun)", 9, "'jump-nun'", "nearest known: jump-none"},
           {"linear()", 7, "')'", "a stop"},
           {"linear(0, 1 20% 30% 40%)", 20, "'40%'", "','"},
           {"linear(0, 1px)", 10, "'1px'", "stop"},
           {"quad(up)", 5, "'up'", "in, out, in-out"},
           {"quad(in, swings 2)", 7, "','", "')'"},
           {"through(0 0, 0 1)", 13, "'0'", "1e-09"},
           {"through(0 0)", 11, "')'", "two or more"},
           {"joined(ease until 40%)", 21, "')'", "until 100%"},
           {"limited(spring(settle 1s))", 8, "'spring'", "a curve"},
           {"coast(fricton 3)", 6, "'fricton'", "nearest known: friction"},
           {"spring(settle 1s) 300ms", 18, "'300ms'", "no time"},
           {"ease 300", 5, "'300'", "240ms"},
           {"ease 3s 4s", 8, "'4s'", "one time"},
           {"ease 300ms later", 11, "'later'", "after"},
           {"ease(1)", 4, "'('", "ease alone"},
           {"ease → 1s", 5, "'→'", "after"},
           {"cubic-bezier(1e999, 0, 0, 0)", 13, "too large", "finite"},
       }) {
    CAPTURE(c.text);
    try {
      (void)io::read_motion(c.text);
      FAIL("taken");
    } catch (const io::SpecError& wrong) {
      CAPTURE(wrong.what());
      CHECK(wrong.facts().at == c.at);
      CHECK_THAT(wrong.facts().found, Catch::Contains(c.found));
      CHECK_THAT(wrong.facts().takes, Catch::Contains(c.takes));
      // What is shown as right is right.
      std::string example = wrong.facts().example;
      for (std::size_t or_at; (or_at = example.find(" or ")) != std::string::npos;)
        example = example.substr(or_at + 4);
      CHECK_NOTHROW(io::read_motion(example));
      const std::string picture = wrong.picture();
      CHECK(picture.find('^') - picture.find('\n') - 1 == 2 + c.at);
    }
  }
  CHECK_THROWS_WITH(io::read_transition("ease"), Catch::Contains("the curve's time"));
  CHECK_THROWS_WITH(io::read_motion(std::string(3000, 'r') + "("), Catch::Contains("found"));
  std::string deep;
  for (int i = 0; i < 500; ++i) deep += "reversed(";
  CHECK_THROWS_WITH(io::read_motion(deep), Catch::Contains("within each other"));
}

TEST_CASE("an app's own curve is named in motions and scenes, alone and within others") {
  const std::vector<io::NamedCurve> own{{"swarm", Curve::own([](double p) { return p * p * p; })}};
  const Transition alone = io::read_transition("swarm 200ms after 40ms", own);
  CHECK(std::get<Timed>(alone.way).curve.value(0.5) == Approx(0.125));
  CHECK(std::get<Timed>(io::read_transition("reversed(swarm) 1s", own).way).curve.value(0.5) ==
        Approx(0.875));
  CHECK_THROWS_WITH(io::read_motion("swarn 200ms", own), Catch::Contains("nearest known: swarm"));
  CHECK_THROWS_AS(io::read_motion("swarm 200ms"), io::SpecError);
  for (const char* taken : {"linear", "spring", "Swarm", "", "2x", "a b"})
    CHECK_THROWS_AS(io::read_motion("ease 1s", std::vector<io::NamedCurve>{{taken, Curve{}}}),
                    std::invalid_argument);
  const std::string text =
      "title = \"t\"\n[[part]]\nid = \"p\"\nkind = \"panel\"\nlabel = \"P\"\nbox = [0, 0, 100, 100]\nenter = "
      "\"swarm 300ms\"\n";
  const io::Scene scene = io::parse_scene(text, "s", shipped_kinds(), {}, {}, own);
  const auto* panel = scene.parts.front().settings.as<PanelSettings>();
  REQUIRE(panel != nullptr);
  CHECK(std::get<Timed>(panel->enter.all().way).curve.value(0.5) == Approx(0.125));
  CHECK_THROWS_AS(io::parse_scene(text, "s"), io::InputError);
}

TEST_CASE("any text is read as a motion or refused") {
  PROPERTY("right ones with characters changed", [] {
    std::string text = *rc::gen::element<std::string>(
        "spring(mass 1, stiffness 320, damping 30) after 30ms",
        "linear(0, 0.5 20% 40%, 1) 3s repeat 2 alternate",
        "joined(ease-in until 40% to 0.7, bounce(out, keeps 3%))", "cubic-bezier(0.3, -1e-3, 0.2, 1) 240ms",
        "limited(mirrored(through(0 0, 30% 0.8, 1 1, free)), 0, 1)", "coast(half-life 170ms)");
    const int changes = *rc::gen::inRange(0, 4);
    for (int i = 0; i < changes; ++i)
      text[static_cast<std::size_t>(*rc::gen::inRange(0, static_cast<int>(text.size())))] =
          *rc::gen::element('(', ')', ',', '%', '9', '-', '.', 'e', ' ', '\0', '\xff', '/', '*');
    try {
      const io::MotionSpec spec = io::read_motion(text);
      RC_ASSERT(std::isfinite(progress_of(spec.transition.way).value(0.37)));
    } catch (const io::SpecError& wrong) {
      RC_ASSERT(wrong.facts().at <= text.size());
    }
  });
}

TEST_CASE("a transition in words comes back as it was") {
  PROPERTY("springs, coasts, curves", [] {
    const Transition way =
        (*rc::gen::element<Transition>(
             Spring::settling(Micros{*rc::gen::inRange(1'000, 900'000)}, *number(0, 0.9)),
             Spring::natural(*number(1, 40), *number(1.01, 4)), Coast::friction(*number(1, 20)),
             Timed{Curve::cubic_bezier(*number(0, 1), -0.5, *number(0, 1), 1.5), ms(120)},
             Timed{Curve::steps(*rc::gen::inRange(2, 9), Jump::none), ms(1)}))
            .after(Micros{*rc::gen::inRange(0, 100'000)});
    const Transition back = io::read_transition(io::spec_text(way));
    RC_ASSERT(back.delay == way.delay);
    RC_ASSERT(std::chrono::abs(duration_of(back.way) - duration_of(way.way)) <= Micros{40});
    RC_ASSERT(same(progress_of(back.way), progress_of(way.way), 1e-3));
  });
}

TEST_CASE("exported CSS read back by our own parser stays within the error it states") {
  PROPERTY("springs", [] {
    const Spring spring = Spring::natural(*number(2, 60), *number(0.1, 4));
    const double max = *rc::gen::element(0.0015, 0.002, 0.01);
    const Curve progress = progress_of(spring, *number(-5, 20));
    const io::EasingText text = io::css_easing(progress, max);
    RC_ASSERT(text.error <= max);
    const Curve back = curve(text.text);
    for (int i = 0; i <= 2000; ++i)
      RC_ASSERT(std::fabs(back.value(i / 2000.0) - progress.value(i / 2000.0)) <= text.error);
    if (*rc::gen::inRange(0, 12) != 0) return;  // fits take a while
    const io::BezierFit fit = fit::fit_bezier(progress);
    const Curve bezier = curve(io::css_text(fit.bezier));
    for (int i = 0; i <= 100; ++i)
      RC_ASSERT(std::fabs(bezier.value(i / 100.0) - progress.value(i / 100.0)) <= fit.error + 1e-9);
  });
  for (const double overshoot : {0.0, 0.1, 0.8})  // cubics are found exactly
    CHECK(fit::fit_bezier(Curve::family(Family::back, Ease::out, {.overshoot = overshoot})).error < 1e-4);
  CHECK(io::css_easing(curve("steps(3, jump-both)")).text == "steps(3, jump-both)");
  CHECK(io::css_easing(curve("linear(0, 0.5 25%, 1)")).text == "linear(0, 0.5 25%, 1)");
  CHECK(io::css_timing(io::read_transition("ease 240ms after 80ms repeat 3 alternate"), "ease") ==
        "240ms ease 80ms 3 alternate");
  CHECK_THAT(io::css_keyframes("rise", Curve{}, {.declaration = "left: {}px", .from = 40, .to = 0}),
             Catch::Equals("@keyframes rise {\n  0% { left: 40px; }\n  100% { left: 0px; }\n}\n"));
  CHECK_THROWS_WITH(io::css_keyframes("rise", Curve{}, {.declaration = "left: 4px"}),
                    Catch::Contains("no {}"));
}

TEST_CASE("design tokens: written and read they are the same motions") {
  io::MotionTokens tokens;
  for (const auto& [name, text] : std::vector<std::pair<std::string, std::string>>{
           {"sheet.open", "spring(settle 420ms, overshoot 6%) after 20ms"},
           {"sheet.close", "ease-in 200ms"},
           {"toast.rise", "bounce(out) 300ms repeat 2"},
           {"curve.settle", "cubic-bezier(0.35, 0.05, 0.15, 0.95)"}})
    tokens.motions.emplace_back(name, io::read_motion(text));
  tokens.durations.emplace_back("toast.stay", ms(4000));
  const std::string json = io::tokens_json(tokens, fit::fit_bezier);
  const auto root = nlohmann::json::parse(json);
  CHECK(root["sheet"]["open"]["$type"] == "transition");
  CHECK(root["sheet"]["open"]["$value"]["duration"] == nlohmann::json{{"value", 420.0}, {"unit", "ms"}});
  CHECK(root["sheet"]["close"]["$value"]["timingFunction"] == nlohmann::json{0.42, 0.0, 1.0, 1.0});
  CHECK(root["curve"]["settle"]["$type"] == "cubicBezier");
  const io::MotionTokens back = io::read_tokens(json, "t.json");
  REQUIRE(back.motions.size() == 4);
  for (const auto& [name, spec] : tokens.motions) {
    const auto found = std::find_if(back.motions.begin(), back.motions.end(),
                                    [&called = name](const auto& m) { return m.first == called; });
    REQUIRE(found != back.motions.end());
    CHECK(found->second.text == spec.text);
  }
  CHECK(back.durations == tokens.durations);
  CHECK(io::tokens_json(back, fit::fit_bezier).size() == json.size());

  const io::MotionTokens foreign = io::read_tokens(R"({
    "times": {"$type": "duration", "quick": {"$value": {"value": 0.12, "unit": "s"}}, "old": {"$value": "90ms"}},
    "bend": {"$type": "cubicBezier", "$value": [0.35, 0.05, 0.15, 0.95]},
    "ink": {"$type": "color", "$value": "#2A2331"},
    "move": {"$type": "transition", "$value": {"duration": "{times.quick}", "timingFunction": "{bend}"}}})",
                                                   "t.json");
  REQUIRE(foreign.motions.size() == 2);
  CHECK(foreign.motions[1].second.text == "cubic-bezier(0.35, 0.05, 0.15, 0.95) 120ms");
  CHECK(foreign.durations[1].second == ms(90));

  struct Case {
    const char* json;
    const char* says;
  };
  for (
      const Case& c :
      {Case{"{\n  \"a\": tru }", "t.json:2:"},
       {"[]", "groups of tokens"},
       {R"({"a": {"$type": "duration", "$value": 3}})", "token 'a': the time 3"},
       {R"({"a": {"$type": "duration", "$value": "3m"}})", "0 to an hour"},
       {R"({"a": {"$type": "cubicBezier", "$value": [2, 0, 0, 0]}})", "x1 = 2"},
       {R"({"a": {"$type": "cubicBezier", "$value": "{b.c}"}})", "leads nowhere"},
       {R"({"a": {"$type": "cubicBezier", "$value": "{a}"}})", "ring"},
       {R"({"a": {"$type": "transition", "$value": {"duration": "3ms"}}})", "no timingFunction"},
       {R"({"a": {"$type": "transition", "$value": {}, "$extensions": {"ubbo.motion": {"spec": "eas 3ms"}}}})",
        "nearest known: ease"}}) {
    CAPTURE(c.json);
    CHECK_THROWS_WITH(io::read_tokens(c.json, "t.json"),
                      Catch::Contains(c.says) && Catch::StartsWith("t.json"));
  }
  tokens.motions.emplace_back("sheet", tokens.motions[0].second);
  CHECK_THROWS_WITH(io::tokens_json(tokens, fit::fit_bezier), Catch::Contains("'sheet' is taken"));
  tokens.motions.back().first = "sheet-open";
  CHECK_THROWS_WITH(io::tokens_header(tokens, "motion"), Catch::Contains("CSS knows it as --sheet-open"));
  for (const char* bad : {"x: red} body{display:none} y", "a..b", "a\nb", "*/", "é", ""}) {
    tokens.motions.back().first = bad;
    CHECK_THROWS_WITH(io::tokens_css(tokens, fit::fit_bezier), Catch::Contains("is no token name"));
    CHECK_THROWS_WITH(io::tokens_header(tokens, "motion"), Catch::Contains("is no token name"));
    CHECK_THROWS_WITH(io::tokens_json(tokens, fit::fit_bezier), Catch::Contains("is no token name"));
  }
  // What a comment is made of cannot end it; a keyword becomes a name.
  tokens.motions.back() = {"default", tokens.motions[0].second};
  tokens.motions.back().second.text = "ease 1s */ } body { x: y\nint evil; \\";
  for (const std::string& text :
       {io::tokens_css(tokens, fit::fit_bezier), io::tokens_header(tokens, "motion")}) {
    CHECK(text.find("evil") == std::string::npos);
    CHECK(text.find("body") == std::string::npos);
  }
  CHECK(io::tokens_header(tokens, "motion").find(" default_ = ") != std::string::npos);
  CHECK(io::tokens_header(tokens, "class").find("namespace class_ {") != std::string::npos);
  tokens.motions.back().first = "9lives";
  CHECK_THROWS_WITH(io::tokens_header(tokens, "motion"), Catch::Contains("no C++ name"));
}

TEST_CASE("a transition in a scene: read as everywhere, and refused at its very column") {
  const std::string before =
      "[cells]\nframes = 4\n[[part]]\nid = \"f\"\nkind = \"slider\"\nvalue = \"frames\"\n"
      "x = 0\ny = 0\nw = 200\nh = 40\ntransition = \"";
  const auto scene = [&](const std::string& transition) {
    return io::parse_scene(before + transition + "\"\n", "s.toml");
  };
  const auto& settings = [&] {
    return *scene("back(out) 90ms after 5ms").parts.at(0).settings.as<SliderSettings>();
  }();
  CHECK(settings.transition.delay == ms(5));
  struct Case {
    const char* transition;
    std::size_t column;
    const char* says;
  };
  for (const Case& c : {Case{"spring(mas 1)", 22, "nearest known: mass"}, {"ease", 19, "the curve's time"}}) {
    try {
      (void)scene(c.transition);
      FAIL("taken");
    } catch (const io::InputError& error) {
      CHECK_THAT(error.what(), Catch::Contains(c.says) && Catch::Contains("for example"));
      CHECK(error.facts().line == 11);
      CHECK(error.facts().column == c.column);
    }
  }
  CHECK_THROWS_WITH(scene("ease 1s repeat 2"), Catch::Contains("gone once"));
}
