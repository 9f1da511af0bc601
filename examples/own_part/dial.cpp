// A part of an app's own: a dial that a finger turns about its middle, with a tool that knows it as it knows
// ours. docs/own-part.md goes through it. Try:  own_part film smoker.scene.toml smoker.turn.take.csv -o
// dial.png
#include <array>
#include <cmath>
#include <numbers>
#include <ubbo/tool/run.hpp>
#include <ubbo/ubbo.hpp>

using namespace ubbo;

namespace {

struct DialSettings {
  std::string label{};
  Link<double> value{};
  double from = 0.0, to = 10.0, step = 1.0;
  double sweep = 270.0;  // degrees from `from` to `to`
  Passage passage = Spring::settling(std::chrono::milliseconds(240), 0.1);
};

constexpr Question turned_question{"how far was it turned?"};
constexpr Answer turned{&turned_question, "so far", true,
                        "it was turned by {by} to {at}; the nearest step is {step}, {step.margin} away",
                        "turned by {by}"};

class Dial final : public Part {
 public:
  using Settings = DialSettings;
  static const PartKind& described();
  static std::string fault(const std::string& id, const Box&, const DialSettings& settings) {
    std::string wrong = settings_fault("dial '" + id + "'", settings);
    if (wrong.empty() && !(settings.to > settings.from))
      wrong = "dial '" + id + "': `to` takes more than `from`";
    if (wrong.empty() && !settings.value.linked()) wrong = "dial '" + id + "': `value` takes a cell";
    return wrong;
  }
  Dial(std::string id, const Box& box, DialSettings settings, Surroundings& around)
      : Part(std::move(id), box, around), settings_(std::move(settings)) {
    if (const std::string wrong = fault(this->id(), box, settings_); !wrong.empty()) refuse(wrong);
    link();
    mover_.put(within(said_));
  }
  const DialSettings& settings() const { return settings_; }
  void change(DialSettings settings) {
    settings_ = std::move(settings);
    link();
    mover_.put(within(said_));
  }

  double value() const { return mover_.at(around().now).value; }
  bool turning() const { return drag_.dragging(); }
  double degrees() const {
    return settings_.sweep * ((value() - settings_.from) / (settings_.to - settings_.from) - 0.5);
  }
  Point knob() const {
    const double angle = degrees() * std::numbers::pi / 180.0;
    return box().centre() + Point{std::sin(angle), -std::cos(angle)} * (0.36 * box().w);
  }

  const PartKind& kind() const override { return described(); }
  bool settled() const override { return held_ < 0 && !mover_.moving(); }
  Accessible accessible() const override {
    return {.role = "slider",
            .label = settings_.label,
            .value_now = value(),
            .value_min = settings_.from,
            .value_max = settings_.to,
            .disabled = !enabled(),
            .keys = "arrows"};
  }
  // A finger on it turns it, whichever way it sets off.
  Wish wish(const Sample&) const override { return {.handle = true, .horizontal = true, .vertical = true}; }
  bool touch(const Contact& contact, const Sample& sample) override {
    if (sample.phase == Phase::down) {
      if (held_ >= 0) return false;
      held_ = contact.slot;
      start_ = value();
      mover_.put(start_);
      way_ = 0.0;
      drag_.press(sample.at);
      heading_ = heading(sample.at);
      return true;
    }
    if (contact.slot != held_) return false;
    if (sample.phase != Phase::cancel) follow(contact, sample);
    if (sample.phase == Phase::move) return true;
    held_ = -1;
    if (!drag_.dragging() || sample.phase == Phase::cancel) return drag_.end(), send(start_), true;
    drag_.end();
    const double at = value();
    const double to =
        within(settings_.from + std::round((at - settings_.from) / settings_.step) * settings_.step);
    decide(turned, {Fact::plain("by", way_ * 180.0 / std::numbers::pi, "degrees"), Fact::plain("at", at, ""),
                    Fact::below("step", to, "", at)});
    return send(to), true;
  }
  bool press(Key key) override {
    const bool up = key == Key::up || key == Key::right;
    if (!up && key != Key::down && key != Key::left) return false;
    return send(within(mover_.target() + (up ? settings_.step : -settings_.step))), true;
  }
  Micros due() const override { return mover_.due(); }
  void advance(Micros now) override { mover_.advance(now); }
  void heard() override {
    if (settings_.value.get() == said_ || !std::isfinite(settings_.value.get())) return;
    said_ = settings_.value.get();
    start_ = within(said_);
    if (held_ < 0) mover_.send(start_, settings_.passage, around().now);
  }

 private:
  double within(double value) const { return std::clamp(value, settings_.from, settings_.to); }
  double heading(Point at) const { return std::atan2(at.y - box().centre().y, at.x - box().centre().x); }
  void link() {
    said_ = settings_.value.get();
    watch_ = settings_.value.watch([this](double) { hear(); });
  }
  void follow(const Contact& contact, const Sample& sample) {
    const Feel& feel = around().feel_for(sample.tool);
    drag_.move(sample.at, contact.contested ? HUGE_VAL : feel.drag_threshold);
    const double step = std::remainder(heading(sample.at) - heading_, 2.0 * std::numbers::pi);
    heading_ += step;
    if (!drag_.dragging()) return;
    way_ += step;
    const double unit = (settings_.to - settings_.from) / (settings_.sweep * std::numbers::pi / 180.0);
    mover_.put(within(start_ + way_ * unit));
  }
  void send(double to) {
    mover_.send(to, settings_.passage, around().now);
    settings_.value.set(said_ = to);
  }

  DialSettings settings_;
  Mover mover_{0.0, 1e-3};
  Drag drag_;
  Watch watch_;
  int held_ = -1;
  double said_ = 0.0, start_ = 0.0, way_ = 0.0, heading_ = 0.0;
};

}  // namespace

template <>
std::span<const Setting<DialSettings>> ubbo::settings_of<DialSettings>() {
  using S = DialSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the dial is called"),
      declare::cell<&S::value>("value", "the cell it shows and changes"),
      declare::number<&S::from>("from", "", -1e6, 1e6, "the value at its left end"),
      declare::number<&S::to>("to", "", -1e6, 1e6, "the value at its right end"),
      declare::number<&S::step>("step", "", 1e-3, 1e6, "distance between the places it comes to rest on"),
      declare::number<&S::sweep>("sweep", "degrees", 30.0, 3600.0,
                                 "how far it turns from one end to the other"),
      declare::passage<&S::passage>("passage", "how it goes where it is sent")};
  return table;
}

const PartKind& Dial::described() {
  static constexpr std::array readings{
      ReadingInfo{"value", "", "what it shows", &read<Dial, &Dial::value>, nullptr, true},
      ReadingInfo{"degrees", "degrees", "how far it is turned from its middle", &read<Dial, &Dial::degrees>},
      ReadingInfo{"turning", "", "a finger turns it", &read<Dial, &Dial::turning>}};
  static constexpr std::array told{&turned};
  static const auto pieces = [](const Part& part, const PieceTaker& out) {
    const auto& dial = static_cast<const Dial&>(part);
    const Box box = dial.box();
    const std::string words = plain_number(std::round(10.0 * dial.value()) / 10.0);
    const Point knob = dial.knob();
    out({.role = Role::label, .box = {box.x, box.y - 24.0, box.w, 20.0}, .words = dial.settings().label});
    out({.role = Role::surface, .box = box});
    out({.role = Role::value, .box = {box.x, box.centre().y - 16.0, box.w, 36.0}, .words = words});
    out({.role = Role::handle,
         .name = "knob",
         .box = {knob.x - 15.0, knob.y - 15.0, 30.0, 30.0},
         .held = dial.turning()});
  };
  static const PartKind kind = describe<Dial>({.name = "dial",
                                               .means = "a knob that is turned, for one number",
                                               .role = "slider",
                                               .readings = readings,
                                               .pieces = +pieces,
                                               .answers = told});
  return kind;
}

int main(int argc, char** argv) {
  std::vector<const PartKind*> kinds(shipped_kinds().begin(), shipped_kinds().end());
  kinds.push_back(&Dial::described());
  return tool::run(argc, argv, kinds);
}
