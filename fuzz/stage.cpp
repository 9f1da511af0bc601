// Whatever happens to a stage: touches of several devices, keys, writes, parts that come, go and call back,
// shared cells, turns, smoothing. Nothing is stuck afterwards, and no number is none.
#include <cmath>
#include <cstdlib>
#include <cstring>
#include <memory>

#include "ubbo/ubbo.hpp"

using namespace ubbo;

namespace {

class Bytes {
 public:
  Bytes(const unsigned char* data, std::size_t size) : data_(data), left_(size) {}
  [[nodiscard]] bool empty() const { return left_ == 0; }
  unsigned next(unsigned below) {
    if (left_ == 0) return 0;
    --left_;
    return *data_++ % below;
  }
  double number() {
    double value = 0.0;
    if (left_ < 9 || next(12) != 0) return next(256) * 3.0 - 20.0;
    std::memcpy(&value, data_, sizeof value);  // anything at all
    data_ += sizeof value;
    left_ -= sizeof value;
    return value;
  }

 private:
  const unsigned char* data_;
  std::size_t left_;
};

void must(bool holds) {
  if (!holds) std::abort();
}

struct World {
  explicit World(Bytes& from) : bytes(from) {
    StageSettings on{.journal = 200, .keep = Keep::latest};
    on.feel.smoothing = Micros{from.next(2) * 16'000};
    on.feel.prediction = Micros{from.next(2) * 16'000};
    stage = std::make_unique<Stage>(on);
  }
  void calls_back() {
    if (++depth > 30) return;
    switch (bytes.next(9)) {
      case 0:
        stage->cancel_contacts();
        break;
      case 1:
        a.set(bytes.number());
        break;
      case 2:
        if (!stage->parts().empty()) stage->remove(*stage->parts()[bytes.next(256) % stage->parts().size()]);
        break;
      case 3:
        add();
        break;
      case 4:
        stage->press(static_cast<Key>(bytes.next(14)), stage->now());
        break;
      case 5:
        stage->touch(sample());
        break;
      default:
        break;
    }
  }
  Sample sample() {
    time += Micros{bytes.next(256) * 300};
    const double any = bytes.next(60) == 0 ? bytes.number() * 1e6 : std::nan("");
    constexpr double max = 9e18;  // nearly all of 64 bits
    return {.time = std::fabs(any) < max ? Micros{static_cast<std::int64_t>(any)} : time,
            .contact = static_cast<int>(bytes.next(3)),
            .phase = static_cast<Phase>(bytes.next(4)),
            .at = {bytes.number(), bytes.number()},
            .tool = static_cast<Tool>(bytes.next(3)),
            .device = static_cast<int>(bytes.next(2))};
  }
  void add() {
    const std::string id = "p" + std::to_string(serial++);
    ContactRules contact_rules;
    if (!stage->parts().empty() && bytes.next(2) == 1) {
      const Part& other = *stage->parts()[bytes.next(256) % stage->parts().size()];
      contact_rules = {.inside = other.id(),
                       .yields_to = bytes.next(3) == 0 ? other.id() : "",
                       .towards = static_cast<YieldDirection>(bytes.next(5)),
                       .observes = bytes.next(8) == 0};
    }
    if (serial > 60 || stage->find(contact_rules.inside) == nullptr) contact_rules = {};
    const Placement box{bytes.next(100) * 1.0, bytes.next(200) * 1.0, 40.0 + bytes.next(250),
                        40.0 + bytes.next(250)};
    Cell<double>& cell = bytes.next(2) == 0 ? a : b;
    if (!std::isfinite(cell.get())) cell.set(0.5);
    const auto on_rest = [this](double) { calls_back(); };
    switch (bytes.next(5)) {
      case 3:
      case 4:
        add_any(id, box, contact_rules);
        break;
      case 0:
        stage->add<Slider>(id, box,
                           {.value = cell,
                            .step = bytes.next(2) * 0.25,
                            .projection_time = Micros{bytes.next(2) * 90'000},
                            .on_rest = on_rest},
                           contact_rules);
        break;
      case 1:
        stage->add<Pane>(
            id, box,
            {.offset = cell,
             .says = static_cast<Says>(bytes.next(2)),
             .min = -100,
             .max = 200,
             .axis = static_cast<Axis>(bytes.next(2)),
             .moves = static_cast<Moves>(bytes.next(2)),
             .snap_points = bytes.next(2) == 0 ? std::vector<double>{} : std::vector<double>{-100, 0, 200},
             .overscroll_min = static_cast<Overscroll::How>(bytes.next(3)),
             .on_rest = on_rest},
            contact_rules);
        break;
      default:
        stage->add<Pad>(id, box,
                        {.gestures = {.report_tap = static_cast<ReportTap>(bytes.next(2))},
                         .on_gesture = [this](const Gesture&) { calls_back(); }},
                        contact_rules);
    }
  }
  // A part of any kind, with any settings that it takes.
  void add_any(const std::string& id, const Placement& box, const ContactRules& contact_rules) {
    const PartKind& kind = *shipped_kinds()[bytes.next(256) % shipped_kinds().size()];
    AnySettings settings = kind.fresh();
    for (std::size_t i = 0; i < kind.settings(); ++i) {
      const SettingInfo& setting = kind.setting(i);
      if (setting.kind == SettingKind::cell) {
        (void)kind.put(settings, i, cell_of(setting.cell_kind));
      } else if (setting.kind != SettingKind::text && setting.kind != SettingKind::transition &&
                 setting.kind != SettingKind::numbers && bytes.next(4) == 0 &&
                 std::string_view(setting.name) != "unknown") {
        const double max = std::fmin(setting.max, 500.0);
        const double min = std::fmax(setting.min, -500.0);
        (void)kind.put(settings, i, std::round(min + (max - min) * bytes.next(256) / 255.0));
      }
    }
    try {
      stage->add(kind, id, box, settings, contact_rules);
    } catch (const std::invalid_argument&) {  // refused, as it says
    }
  }
  AnyCell cell_of(CellKind kind) {
    switch (kind) {
      case CellKind::number:
        return bytes.next(2) == 0 ? &a : &b;
      case CellKind::whole:
        return &whole;
      case CellKind::flag:
        return &flag;
      case CellKind::choice:
        return &choice;
      default:
        return &text;
    }
  }
  void step() {
    depth = 0;
    Part* part = stage->parts().empty() ? nullptr : stage->parts()[bytes.next(256) % stage->parts().size()];
    switch (bytes.next(21)) {
      case 0:
        if (serial < 60) add();
        break;
      case 1:
        a.set(bytes.number());
        break;
      case 2:
        stage->at(time, [this] { b.set(bytes.number()); });
        break;
      case 3:
        stage->press(static_cast<Key>(bytes.next(14)), time);
        break;
      case 4:
        if (part != nullptr) stage->remove(*part);
        break;
      case 5:
        if (part != nullptr) stage->show(*part, bytes.next(2) == 1);
        break;
      case 6:
        if (part != nullptr) stage->place(*part, {1, 2, 50.0 + bytes.next(200), Length::of(0.5)});
        break;
      case 7:
        stage->turn({200.0 + bytes.next(200), 300}, {.top = 20}, time);
        break;
      case 8:
        if (part != nullptr) bytes.next(2) == 0 ? stage->raise(*part) : stage->lower(*part);
        break;
      case 10:
        whole.set(static_cast<int>(bytes.next(40)) - 10);
        flag.set(bytes.next(2) == 1);
        choice.set(choice.get().with(bytes.next(4)));
        break;
      case 11:
        if (part != nullptr && !part->kind().actions.empty())
          stage->act(*part, part->kind().actions[bytes.next(256) % part->kind().actions.size()].name, time);
        break;
      case 12:
        stage->back_begins(time);
        break;
      case 13:
        stage->back_moves(bytes.next(256) / 200.0, time);
        break;
      case 14:
        bytes.next(2) == 0 ? stage->back_cancelled(time) : static_cast<void>(stage->back_finished(time));
        break;
      case 9:
        time += Micros{bytes.next(256) * 4000};
        stage->advance(time);
        break;
      default:
        stage->touch(sample());
    }
    for (const Part* one : stage->parts()) {
      const Box box = one->box();
      must(std::isfinite(box.x + box.y + box.w + box.h));
      for (const ReadingInfo& reading : one->kind().readings) {
        const ReadingValue value = reading.now(*one);
        if (const auto* number = std::get_if<double>(&value)) must(std::isfinite(*number));
      }
    }
  }

  Bytes& bytes;
  Cell<double> a{0.5}, b{0.5};
  Cell<int> whole{0};
  Cell<bool> flag{false};
  Cell<Choice> choice{Choice({"Notes", "Treatment", "Harvest"})};
  Cell<std::string> text;
  std::unique_ptr<Stage> stage;
  Micros time{};
  int serial = 0;
  int depth = 0;
};

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  if (size > 1500) return 0;
  Bytes bytes(data, size);
  World world(bytes);
  for (int i = 0; i < 4; ++i) world.add();
  while (!bytes.empty()) world.step();
  world.depth = 100;  // the callbacks rest
  for (int i = 0; i < 4; ++i) {
    world.stage->cancel_contacts();
    world.stage->advance(world.stage->now() + std::chrono::hours(2));
  }
  must(world.stage->open_contacts() == 0);
  must(world.stage->settled());
  return 0;
}
