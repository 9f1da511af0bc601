#include "ubbo/io/take/recording.hpp"

#include <fmt/format.h>

#include <cstring>

#include "ubbo/io/take/take_info.hpp"
#include "ubbo/io/take/wheel_action.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;
using io::InputError;

namespace {

const std::string axes =
    "# ABS_MT_POSITION_X min 0 max 1000 resolution 10\n"
    "#   Event code 54 (ABS_MT_POSITION_Y)\n#     Min  0\n#     Max  2000\n#     Resolution  10\n";

// Two fingers; slot 0 is used again by a contact that goes down where the last one was.
const std::string two_fingers =
    axes +
    "E: 5.000000 0003 002f 0000\nE: 5.000000 0003 0039 0100\nE: 5.000000 0003 0035 0500\n"
    "E: 5.000000 0003 0036 1000\nE: 5.000000 0001 014a 0001\nE: 5.000000 0000 0000 0000\n"
    "E: 5.008000 0003 0035 0550\nE: 5.008000 0003 002f 0001\nE: 5.008000 0003 0039 0101\n"
    "E: 5.008000 0003 0035 0100\nE: 5.008000 0003 0036 0200\nE: 5.008000 0000 0000 0000\n"
    "E: 5.016000 0003 002f 0000\nE: 5.016000 0003 0039 -1\nE: 5.016000 0000 0000 0000\n"
    "E: 5.024000 0003 0039 0102\nE: 5.024000 0000 0000 0000\n"
    "E: 5.032000 0003 0039 -1\nE: 5.032000 0003 002f 0001\nE: 5.032000 0003 0039 -1\n"
    "E: 5.032000 0000 0000 0000\n";

const io::Mapping on_360x720{.screen = {360, 720}};

std::string raw(std::initializer_list<std::array<long, 5>> events) {
  std::string bytes;
  for (const auto& [sec, usec, type, code, value] : events) {
    char record[24];
    const std::int64_t s = sec, u = usec;
    const auto t = static_cast<std::uint16_t>(type), c = static_cast<std::uint16_t>(code);
    const auto v = static_cast<std::int32_t>(value);
    std::memcpy(record, &s, 8);
    std::memcpy(record + 8, &u, 8);
    std::memcpy(record + 16, &t, 2);
    std::memcpy(record + 18, &c, 2);
    std::memcpy(record + 20, &v, 4);
    bytes.append(record, 24);
  }
  return bytes;
}

}  // namespace

TEST_CASE("kernel events, protocol B: slots keep their place, lengths follow the declared range") {
  const io::Take take = io::parse_kernel_text(two_fingers, "t", on_360x720);
  REQUIRE(take.samples.size() == 7);
  CHECK(same_place(take.samples[0].at, {180, 360}));
  CHECK(same_place(take.samples[1].at, {198, 360}));
  CHECK(take.samples[2].contact == 101);
  CHECK(take.samples[3].phase == Phase::up);
  CHECK(take.samples[4].contact == 102);
  CHECK(take.samples[4].phase == Phase::down);
  CHECK(same_place(take.samples[4].at, {198, 360}));
  const auto info = io::inspect(take, {}, {0, 0, 360, 720});
  REQUIRE(info.contacts.size() == 3);
  CHECK(same_place(info.contacts[0].net, {18, 0}));
  CHECK(info.contacts[1].start == ms(8));
  CHECK(info.contacts[1].duration == ms(24));
  CHECK(info.contacts[2].ended == "up");

  CHECK(io::parse_kernel_text(two_fingers, "t", {.raw_units = true}).samples[1].at == Point{550, 1000});
  // 500 units at 10 a millimetre are 50 mm.
  CHECK(io::parse_kernel_text(two_fingers, "t", {}).samples[0].at.x == Approx(50 / 25.4 * 160));

  const std::string bytes = raw({{5, 0, 3, 0x39, 7},
                                 {5, 0, 3, 0x35, 500},
                                 {5, 0, 3, 0x36, 1000},
                                 {5, 0, 0, 0, 0},
                                 {5, 9000, 0, 3, 0},
                                 {5, 9500, 3, 0x35, 1},
                                 {5, 9500, 0, 0, 0}});
  const io::Take from_raw = io::parse_kernel_raw(bytes, "t", {.screen = {360, 720}, .range = {1000, 2000}});
  REQUIRE(from_raw.samples.size() == 2);
  CHECK(from_raw.samples[0].at == Point{180, 360});
  CHECK(from_raw.samples[1].phase == Phase::cancel);  // the kernel dropped events
}

namespace {

struct Spelling {
  const char* name;
  std::string panel;
  std::string (*event)(int micros, int type, int code, int value);
};

std::string stamp(int micros) { return fmt::format("{}.{:06}", 40 + micros / 1000000, micros % 1000000); }

// One panel, 100 by 200 mm, as each kind of recorder writes it down.
const Spelling spellings[] = {
    {"bare events", axes,
     [](int t, int type, int code, int value) {
       return fmt::format("E: {} {:04x} {:04x} {:04}\t# a comment {}\n", stamp(t), type, code, value, value);
     }},
    {"description lines",
     "# Input device name: \"Smoker shelf panel\"\nN: Smoker shelf panel\nI: 0018 0b0b 0001 0110\nP: 02 00 "
     "00 00\n"
     "B: 00 0b 00 00 00\nB: 03 00 00 00 00 00 80 e0 02\nA: 2f 0 9 0 0\nA: 35 0 1000 4 0 10\n"
     "A: 36 0 2000 4 0 10\nL: 00 0\nS: 00 0\n",
     [](int t, int type, int code, int value) {
       return fmt::format("E: {} {:04x} {:04x} {}\n", stamp(t), type, code, value);
     }},
    {"a tester",
     "Input driver version is 1.0.1\nInput device name: \"Smoker shelf panel\"\nSupported events:\n"
     "  Event type 3 (EV_ABS)\n    Event code 0 (ABS_X)\n      Min        7\n      Max       99\n"
     "    Event code 53 (ABS_MT_POSITION_X)\n      Value      0\n      Min        0\n      Max     1000\n"
     "      Resolution      10\n    Event code 54 (ABS_MT_POSITION_Y)\n      Min        0\n      Max     "
     "2000\n"
     "      Resolution      10\nProperties:\nTesting ... (interrupt to exit)\n",
     [](int t, int type, int code, int value) {
       if (type == 0)
         return fmt::format("Event: time {}, -------------- SYN_REPORT ------------\n", stamp(t));
       return fmt::format("Event: time {}, type {} (EV_ABS), code {} (ABS_MT), value {}\n", stamp(t), type,
                          code, value);
     }},
    {"a dump of numbers",
     "add device 1: /dev/input/event2\n  name:     \"Smoker shelf panel\"\n  events:\n    KEY (0001): 014a\n"
     "    ABS (0003): 002f  : value 0, min 0, max 9, fuzz 0, flat 0, resolution 0\n"
     "                0035  : value 0, min 0, max 1000, fuzz 0, flat 0, resolution 10\n"
     "                0036  : value 0, min 0, max 2000, fuzz 0, flat 0, resolution 10\n",
     [](int t, int type, int code, int value) {
       return fmt::format("[{:>16}] {:04x} {:04x} {:08x}\n", stamp(t), type, code,
                          static_cast<unsigned>(value));
     }},
    {"a dump of names, with a second device", "add device 1: /dev/input/event2\n" + axes,
     [](int t, int type, int code, int value) {
       const char* name = type == 0      ? "SYN_REPORT"
                          : code == 0x2f ? "ABS_MT_SLOT"
                          : code == 0x35 ? "ABS_MT_POSITION_X"
                          : code == 0x36 ? "ABS_MT_POSITION_Y"
                                         : "ABS_MT_TRACKING_ID";
       return fmt::format(
           "[   {}] /dev/input/event0: EV_KEY KEY_POWER DOWN\n[   {}] /dev/input/event2: {} {:<20} {:08x}\n",
           stamp(t), stamp(t), type == 0 ? "EV_SYN" : "EV_ABS", name, static_cast<unsigned>(value));
     }},
};

}  // namespace

TEST_CASE("one touch on one panel reads the same however its recorder spelt it") {
  PROPERTY("up to five contacts in any order", [] {
    struct Step {
      int micros, type, code, value;
    };
    std::vector<Step> steps;
    int now = 0;
    std::array<bool, 5> down{};
    for (int i = *rc::gen::inRange(1, 30), id = 7; i > 0; --i) {
      const int slot = *rc::gen::inRange(0, 5);
      steps.push_back({now, 3, 0x2f, slot});
      if (!down[slot] || *rc::gen::inRange(0, 4) == 0) {
        down[slot] = !down[slot];
        steps.push_back({now, 3, 0x39, down[slot] ? id++ : -1});
      }
      if (down[slot]) {
        steps.push_back({now, 3, 0x35, *rc::gen::inRange(0, 1001)});
        steps.push_back({now, 3, 0x36, *rc::gen::inRange(0, 2001)});
      }
      steps.push_back({now, 0, 0, 0});
      now += *rc::gen::inRange(0, 2'000'000);
    }
    for (const io::Mapping& mapping : {on_360x720, io::Mapping{}, io::Mapping{.raw_units = true}}) {
      std::string first;
      for (const Spelling& spelling : spellings) {
        INFO(spelling.name);
        std::string text = spelling.panel;
        for (const Step& s : steps) text += spelling.event(s.micros, s.type, s.code, s.value);
        RC_ASSERT(io::is_kernel_text(text));
        const io::Take take = io::parse_kernel_text(text, "t", mapping);
        if (first.empty()) first = io::write_take(take);
        RC_ASSERT(io::write_take(take) == first);
        for (const Sample& sample : take.samples)
          RC_ASSERT(mapping.screen.x == 0.0 || Box({0, 0, 360, 720}).contains(sample.at) ||
                    sample.at.x == 360 || sample.at.y == 720);
      }
    }
  });
}

TEST_CASE("pointer events, coalesced ones in their places") {
  const io::Take take = io::parse_pointer_events(
      R"({"type":"pointermove","pointerId":1,"pointerType":"mouse","clientX":1,"clientY":1,"timeStamp":90}
{"type":"pointerdown","pointerId":4,"pointerType":"pen","clientX":10,"clientY":20.5,"pressure":0.4,"timeStamp":100.25}
{"type":"pointermove","pointerId":4,"pointerType":"pen","clientX":30,"clientY":40,"timeStamp":116,"coalescedEvents":[{"clientX":20,"clientY":30,"timeStamp":108},{"clientX":30,"clientY":40,"timeStamp":116}]}

{"type":"pointerup","pointerId":4,"pointerType":"pen","clientX":30,"clientY":40,"timeStamp":120}
{"type":"pointermove","pointerId":4,"pointerType":"touch","clientX":31,"clientY":40,"timeStamp":121}
{"type":"pointerleave","pointerId":1,"pointerType":"mouse","timeStamp":130})",
      "t");
  REQUIRE(take.samples.size() == 6);
  CHECK(take.samples[0].tool == Tool::mouse);  // over the screen, and touches nothing
  CHECK(take.samples[0].phase == Phase::hover);
  CHECK(take.samples[0].time == ms(0));
  CHECK(take.samples[1].tool == Tool::stylus);
  CHECK(take.samples[2].at == Point{20, 30});
  CHECK(take.samples[2].time == ms(18));
  CHECK(take.samples[4].phase == Phase::up);
  CHECK(take.samples[5].phase == Phase::leave);
}

TEST_CASE("wheels: W3C's events, and a mouse as the kernel tells of it") {
  const auto turns = [](const io::Take& take) {
    std::string all;
    for (const io::Action& one : take.actions)
      all += plain_number(to_ms(one.time)) + " " + one.target + ": " + one.value + "\n";
    return all;
  };
  const io::Take page = io::parse_pointer_events(
      R"({"type":"pointermove","pointerId":1,"pointerType":"mouse","clientX":8,"clientY":9,"timeStamp":90}
{"type":"wheel","clientX":8,"clientY":9,"deltaX":0,"deltaY":-12.5,"deltaMode":0,"timeStamp":100}
{"type":"wheel","clientX":8,"clientY":9,"deltaY":3,"deltaMode":1,"timeStamp":110}
{"type":"wheel","clientX":8,"clientY":9,"deltaY":100,"deltaMode":0,"wheelDeltaY":-120,"timeStamp":120}
{"type":"wheel","clientX":8,"clientY":9,"deltaY":40,"deltaMode":0,"wheelDeltaY":-120,"timeStamp":125}
{"type":"wheel","clientX":8,"clientY":9,"deltaY":-2,"ctrlKey":true,"timeStamp":130}
{"type":"wheel","clientX":8,"clientY":9,"deltaY":1,"deltaMode":2,"timeStamp":140})",
      "t");
  CHECK(page.samples.size() == 1);
  CHECK(turns(page) ==
        "10 8 9: 0 -12.5 dp\n20 8 9: 0 3 line\n30 8 9: 0 1 notch\n"
        "35 8 9: 0 40 dp\n40 8 9: 0 -2 dp zoom\n50 8 9: 0 1 page\n");
  const std::string mouse =
      "E: 1.000000 0002 0000 10\nE: 1.000000 0002 0001 -30\nE: 1.000000 0000 0000 0\n"
      "E: 1.100000 0002 0008 -1\nE: 1.100000 0002 000b -120\nE: 1.100000 0000 0000 0\n"
      "E: 1.200000 0002 000b 30\nE: 1.200000 0000 0000 0\n"
      "E: 1.300000 0001 0110 1\nE: 1.300000 0000 0000 0\n"
      "E: 1.400000 0002 0000 -5000\nE: 1.400000 0000 0000 0\n"
      "E: 1.500000 0001 0110 0\nE: 1.500000 0002 0006 1\nE: 1.500000 0000 0000 0\n";
  const io::Take kernel = io::parse_recording(mouse, "t", {.screen = {360, 720}});
  CHECK(turns(kernel) == "100 190 330: 0 1 notch\n200 190 330: 0 -0.25 notch\n500 0 330: 1 0 notch\n");
  REQUIRE(kernel.samples.size() == 4);
  CHECK(kernel.samples[0].phase == Phase::hover);
  CHECK(kernel.samples[0].at == Point{190, 330});
  CHECK(kernel.samples[1].phase == Phase::down);
  CHECK(kernel.samples[2].at == Point{0, 330});
  CHECK(kernel.samples[3].phase == Phase::up);
  // Each reads again as it was written.
  for (const io::Take& take : {page, kernel})
    for (const io::Action& action : take.actions) {
      const auto turn = io::wheel_turn(action);
      REQUIRE(turn);
      CHECK(io::wheel_action(*turn).value == action.value);
    }
  for (const char* bad :
       {"0 3", "0 3 ell", "0 3 dp zooms", "0 3 dp scale", "0 3 dp scale 0", "0 3 dp end x", "nan 3 dp"})
    CHECK_FALSE(io::wheel_turn({.kind = io::Action::Kind::wheel, .target = "1 2", .value = bad}));
}

TEST_CASE("malformed recordings of each kind are answered with their line") {
  struct Case {
    std::string text;
    std::size_t line;
    const char* says;
  };
  const std::string down =
      "E: 1.000000 0003 0039 0001\nE: 1.000000 0003 0035 0010\nE: 1.000000 0003 0036 0010\n";
  const std::string end = "E: 1.000000 0000 0000 0000\n";
  const Case kernel[] = {
      {"E: 1.000000 0003 0039\n", 1, "'E:'"},
      {axes + "hello\n", 6, "'hello'; takes 'E: sec.usec type code value'"},
      {axes + "E: 1.5 0003 0039 1\n", 6, "'1.5'"},
      {axes + "E: 1.000000 00zz 0039 1\n", 6, "'00zz'"},
      {axes + "E: 1.000000 0003 0039 99999999999\n", 6, "'99999999999'"},
      {axes + down + end + "E: 0.900000 0000 0000 0000\n", 10, "100000 us before"},
      {axes + "E: 1.000000 0003 0035 0010\nE: 1.000000 0000 0002 0000\n", 7, "protocol A"},
      {axes + "E: 1.000000 0003 002f 0090\n", 6, "slot 90"},
      {axes + "E: 1.000000 0003 0039 0001\n" + end, 7, "contact 1 without a place"},
      {down + end, 4, "no way from panel units to dp along x"},
      {"# ABS_MT_POSITION_X min zero\n", 1, "'zero' for min"},
      {axes + end, 6, "no contact"},
      {axes + end + "hello\n", 7, "'hello'"},
      {"A: 35 0 1000\n" + down + end, 1, "3 figures in a line A:"},
      {"A: 35 0 much 0 0 0\n" + down + end, 1, "'much'"},
      {axes + "Event: time 1.000000, type 3 (EV_ABS), code 57 (ABS_MT_TRACKING_ID), value x\n", 6, "'x'"},
      {axes + "Event: type 3\n", 6, "'Event:'"},
      {axes + "Event: time 1.000000, hello\n", 6, "'hello'"},
      {axes + "[ 1.000000 0003 0039 00000001\n", 6, "'1.000000'"},
      {axes + "[ 1.000000] 0003 39 00000001\n", 6, "'39'"},
      {axes + "[ 1.000000] EV_ABS ABS_MT_SLOT one\n", 6, "'one'"},
      {axes + "/dev/input/event2: 0003 0039 00000001\n", 6, "without a time"},
  };
  const Case pointer[] = {
      {"{\"type\":\n", 1, "the end; takes JSON"},
      {"\n[1]\n", 2, "no JSON object"},
      {"{\"pointerId\":1}\n", 1, "without a type"},
      {R"({"type":"pointerdown","pointerId":1,"clientY":2,"timeStamp":1})", 1, "without clientX"},
      {R"({"type":"pointerdown","pointerId":1,"clientX":"a","clientY":2,"timeStamp":1})", 1, "clientX \"a\""},
      {"{\"type\":\"pointerdown\",\"pointerId\":1,\"clientX\":1,\"clientY\":2,\"timeStamp\":5}\n"
       "{\"type\":\"pointerup\",\"pointerId\":1,\"clientX\":1,\"clientY\":2,\"timeStamp\":4}\n",
       2, "timeStamp 4 after 5"},
      {R"({"type":"click"})", 1, "type 'click'"},
      {"{\"type\":\"pointerover\"}\n", 1, "no contact"},
  };
  const auto check = [](const Case& c, auto&& parse) {
    CAPTURE(c.text);
    try {
      (void)parse(c.text);
      FAIL("taken");
    } catch (const InputError& error) {
      CHECK(error.facts().line == c.line);
      CHECK_THAT(error.what(), Catch::StartsWith("t:") && Catch::Contains(c.says));
    }
  };
  for (const Case& c : kernel)
    check(c, [](const std::string& text) { return io::parse_kernel_text(text, "t", on_360x720); });
  for (const Case& c : pointer)
    check(c, [](const std::string& text) { return io::parse_pointer_events(text, "t"); });
  check({raw({{1, 0, 0, 2, 0}}), 1, "protocol A"},
        [](const std::string& b) { return io::parse_kernel_raw(b, "t", on_360x720); });
  check({raw({{1, 0, 0, 0, 0}}) + "xyz", 2, "3 bytes"},
        [](const std::string& b) { return io::parse_kernel_raw(b, "t", on_360x720); });
  check({raw({{-1, 0, 0, 0, 0}}), 1, "a time that is none"},
        [](const std::string& b) { return io::parse_kernel_raw(b, "t", on_360x720); });
  PROPERTY("any bytes are read or refused", [] {
    std::string text = two_fingers;
    for (int i = *rc::gen::inRange(0, 6); i > 0; --i)
      text[static_cast<std::size_t>(*rc::gen::inRange(0, static_cast<int>(text.size())))] =
          *rc::gen::element('\n', ' ', '-', '9', 'E', '#', '\0');
    for (const bool as_raw : {false, true}) {
      try {
        if (as_raw)
          (void)io::parse_kernel_raw(text, "t", {.screen = {360, 720}, .range = {1000, 1000}});
        else
          (void)io::parse_kernel_text(text, "t", on_360x720);
      } catch (const InputError&) {
      }
    }
  });
}

TEST_CASE("a recording is read by the first format that it is, and a take by the last") {
  const auto as = [](const std::string& text) {
    for (const io::RecordingFormat& format : io::recording_formats())
      if (format.is(text)) return std::string(format.name);
    return std::string("none");
  };
  const std::string take = "time_ms,contact,phase,x,y\n0,1,down,5,5\n40,1,up,5,5\n";
  const std::string events = R"({"type":"pointerdown","pointerId":1,"clientX":5,"clientY":5,"timeStamp":1})";
  CHECK(as(two_fingers) == "kernel-text");
  CHECK(as(raw({{1, 0, 0, 0, 0}})) == "kernel-raw");
  CHECK(as("  " + events) == "pointer-events");
  CHECK(as(take) == "take");
  CHECK(io::write_take(io::parse_recording(two_fingers, "t", on_360x720)) ==
        io::write_take(io::parse_kernel_text(two_fingers, "t", on_360x720)));
  CHECK(io::parse_recording(take, "t", {}).samples.size() == 2);
}
