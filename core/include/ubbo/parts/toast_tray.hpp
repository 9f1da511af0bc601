#pragma once

#include <deque>
#include <functional>
#include <string>

#include "ubbo/parts/entering_part.hpp"
#include "ubbo/parts/outside.hpp"
#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/rail.hpp"

namespace ubbo {

namespace questions {
inline constexpr Question toast{"toast-tray.toast"};
}
namespace answers {
using ToastHeld = AnswerWith<Number<"left", "ms">>;
inline constexpr AnswerWith<Number<"before", "">> toast_waits{"toast-tray.waits", &questions::toast, true};
inline constexpr AnswerWith<> toast_replaces{"toast-tray.replaces", &questions::toast, true};
inline constexpr AnswerWith<> toast_restarts{"toast-tray.restarts", &questions::toast, true};
inline constexpr AnswerWith<> toast_shown{"toast-tray.shown", &questions::toast, true};
inline constexpr AnswerWith<Number<"time", "ms">> toast_time_over{"toast-tray.time-over", &questions::toast,
                                                                  true};
inline constexpr AnswerWith<> toast_swiped{"toast-tray.swiped", &questions::toast, true};
inline constexpr AnswerWith<> toast_button{"toast-tray.button", &questions::toast, true};
inline constexpr AnswerWith<> toast_closed{"toast-tray.closed", &questions::toast, true};
inline constexpr ToastHeld toast_pauses{"toast-tray.pauses", &questions::toast, true};
inline constexpr ToastHeld toast_goes_on{"toast-tray.goes-on", &questions::toast, true};
inline constexpr AnswerWith<> toast_has_gone{"toast-tray.has-gone", &questions::toast, false};
inline constexpr std::array<const Answer*, 11> toast_answers{
    &toast_waits,  &toast_replaces, &toast_restarts, &toast_shown,   &toast_time_over, &toast_swiped,
    &toast_button, &toast_closed,   &toast_pauses,   &toast_goes_on, &toast_has_gone};
}  // namespace answers

/// What becomes of the toast that is shown when another is to be.
enum class WhenBusy : std::uint8_t { queue, replace, restart };

/// What ended a toast.
enum class ToastEnd : std::uint8_t { time, swipe, button, call, replaced };

/// The settings of a toast tray. Units, ranges and meanings stand in the settings table.
struct ToastTraySettings {
  Link<std::string> message{};  ///< what the next toast says, read when it is shown; optional
  Link<int> trigger{};          ///< each time this grows a toast is shown; optional
  Micros time{4'000'000};       ///< how long it stays once it is present; 0: until it is closed
  WhenBusy when_busy = WhenBusy::queue;
  std::string button{};  ///< what its button says; "": it has none
  bool swipes = true;    ///< a finger swipes it away to either side
  Live live = Live::polite;
  Travel travel{.from_edge = Edge::bottom, .to_edge = Edge::bottom};
  Transitions enter = Spring::settling(Micros{280'000}, 0.0);
  Transitions exit = Spring::settling(Micros{220'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  std::function<void(const std::string&)> on_show{};           ///< told what it says, as it starts to enter
  std::function<void(const std::string&, ToastEnd)> on_end{};  ///< told what it said, and what ended it
  std::function<void()> on_button{};
};

template <>
std::span<const Setting<ToastTraySettings>> settings_of<ToastTraySettings>();

/// Where messages come up for a while, one at a time.
///
/// What a toast says is read when it is shown. Another one waits its turn, replaces it, or takes its place
/// and restarts its time. Its time pauses while a finger is on it. It never takes the focus, and what lies
/// below its surface beside it stays in use.
class ToastTray final : public PartOf<ToastTray, ToastTraySettings>, public LayerPart {
 public:
  /// Names one toast, and never another.
  using Token = int;

  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static std::string misfit(const Box& box, const ToastTraySettings& settings);

  ToastTray(std::string id, const Box& box, ToastTraySettings&& settings, Context& context);

  void changed();

  /// Shows a toast, now or in its turn. "": what the cell `message` says when it is shown.
  Token show(std::string words = {});
  /// Closes that toast, or takes it from those that wait; does nothing when it has gone, whatever is shown by
  /// then.
  void dismiss(Token token);
  /// Closes the one that is shown, if any.
  void dismiss();

  [[nodiscard]] EnterExit::State state() const { return enter_exit_.state(); }
  /// How it comes and goes.
  [[nodiscard]] const EnterExitPlan& ways() const { return enter_exit_.plan(); }
  /// A toast is shown, or on its way in.
  [[nodiscard]] bool is_open() const override { return enter_exit_.open(); }
  /// What it says; "" when none is shown.
  [[nodiscard]] const std::string& words() const { return now_.words; }
  [[nodiscard]] std::size_t waiting() const { return queue_.size(); }
  /// How many have been shown so far.
  [[nodiscard]] int shown() const { return shown_; }
  /// What is left of its time, ms; 0 when it does not run.
  [[nodiscard]] double time_left() const;
  [[nodiscard]] bool pressed() const { return swipe_.pressed() || outside_.held_on(On::button); }
  [[nodiscard]] bool dragging() const { return swipe_.dragging(); }
  /// What it is swiped away along.
  [[nodiscard]] const Rail& rail() const { return swipe_; }
  /// Where its button is on the screen, if it has one.
  [[nodiscard]] std::optional<Box> button() const;

  [[nodiscard]] VisualState visual_state() const override;
  [[nodiscard]] Point moved() const override { return visual_state().offset; }
  void present(Accessible& told) const override;
  [[nodiscard]] DragInterest drag_interest(const Sample&) const override {
    return {.horizontal = settings_.swipes};
  }
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  void cell_changed() override;
  void resized() override;
  void update() override;

  [[nodiscard]] bool is_absent() const override { return enter_exit_.absent(); }
  [[nodiscard]] bool is_leaving() const override { return enter_exit_.state() == EnterExit::State::leaving; }
  void leave() override;

 private:
  struct Toast {
    Token token = 0;
    std::string words{};
  };
  [[nodiscard]] EnterExitPlan planned() const;
  [[nodiscard]] RailPlan swipe_plan() const;
  void follow();
  void add(Toast toast);
  void begin();
  void end(ToastEnd how);
  void gone();
  void close(const AnswerWith<>& answer, ToastEnd how);
  void drop_finger(LetGo how);

  Clocked<EnterExit> enter_exit_{*this};
  Rail swipe_;
  Alarm time_;
  Outside outside_;
  Watch watch_;
  std::deque<Toast> queue_;
  Toast now_;
  bool up_ = false;  // a toast has been shown and has yet to be gone
  ToastEnd end_ = ToastEnd::time;
  Token last_ = 0;
  int shown_ = 0;
  int seen_ = 0;         // of the cell that counts
  bool stands_ = false;  // its time does, and that has been said
};

}  // namespace ubbo
