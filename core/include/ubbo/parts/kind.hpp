#pragma once

#include <any>
#include <array>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <variant>
#include <vector>

#include "ubbo/base/taker.hpp"
#include "ubbo/landing/landing.hpp"
#include "ubbo/parts/content.hpp"
#include "ubbo/parts/cursor.hpp"
#include "ubbo/parts/part.hpp"
#include "ubbo/parts/setting_value.hpp"

namespace ubbo {

/// What a reading reads: a number, a flag or a text.
using ReadingValue = std::variant<double, bool, std::string>;

/// A named thing that can be read of a part, for graphs, JSON and live figures.
struct ReadingInfo {
  const char* name;
  const char* unit;  ///< "" for a bare number, a flag or a text
  const char* means;
  ReadingValue (*now)(const Part&);
  /// Adds the places at which a number may come to rest; null: not known.
  void (*snap_points)(const Part&, std::vector<double>&) = nullptr;
  bool usual = false;  ///< worth a line in a graph when nothing is asked for
  /// Adds the values at which it is decided what becomes of a drag when it is let go; null: none.
  void (*thresholds)(const Part&, std::vector<Threshold>&) = nullptr;
};

/// What a piece of a part is for.
enum class Role : std::uint8_t {
  backdrop,
  behind,
  surface,
  row,     ///< a surface that lies with others like it in a stack
  button,  ///< a surface to press
  track,
  fill,
  mark,
  handle,
  label,
  value
};

/// "surface", "handle", …
[[nodiscard]] const char* name_of(Role role);

/// A named box of a part: its geometry without drawing. Skins paint pieces by their roles, hand scripts touch
/// them, films frame them.
struct Piece {
  Role role = Role::surface;
  const char* name = "";     ///< what hand scripts call it; "": by its role
  Box box{};                 ///< dp, on the screen
  std::string_view words{};  ///< what stands in it; good only while it is being handed over
  double turn = 0.0;         ///< radians, clockwise about the middle of its box
  double opacity = 1.0;
  std::optional<Box> clip{};  ///< nothing of it is seen outside of that; nothing: all of it
  double fraction = 1.0;      ///< of a mark that is on: how much of it, from the leading side
  bool on = false;            ///< filled, chosen, checked
  bool held = false;          ///< a finger has it
  bool notice = false;        ///< it comes up over others for a while: drawn in opposite colours
  bool bare = false;          ///< what lies below shows through while it is neither pressed nor failed
  Rank rank = Rank::plain;
  std::string_view detail{};        ///< a second line below its words
  std::string_view glyph{};         ///< the name of a sign beside its words, for a skin
  std::string_view image{};         ///< the name of a picture that fills it, for a skin
  std::optional<Box> image_box{};   ///< where in it that lies; nothing: all of it
  std::optional<Box> image_clip{};  ///< nothing of the picture is seen outside of that; nothing: all of it
  int item = -1;                    ///< the item it belongs to, from 0; below 0: none
  bool failed = false;              ///< what it stands for went wrong
  double hover = 0.0;               ///< how much it shows that a mouse or pen is over it, 0 to 1
  /// What a mouse's pointer is to look like over it. A piece that says so is one of those of which one at a
  /// time is hovered.
  Cursor cursor = Cursor::automatic;
};

using PieceTaker = Taker<const Piece&>;

/// Hands out the pieces of one item of a part that has many: its card, with its picture above its title; or
/// its number, where `titles` has no line for it.
void item_pieces(Piece card, const Link<std::vector<std::string>>& titles, const PieceTaker& out);

/// The pieces of a part as it is now, with what is shown of its content.
void pieces_of(const Part& part, const PieceTaker& out);

/// One of the pieces of a part of which one at a time is hovered: those that hint at a cursor.
struct PieceUnder {
  int key = 0;  ///< which one, for as long as the part has it; 0: none
  Cursor cursor = Cursor::automatic;
  Box box{};  ///< of that piece, dp on the screen

  friend bool operator==(const PieceUnder& a, const PieceUnder& b) {
    return a.key == b.key && a.cursor == b.cursor;
  }
};
/// The one under `at`: the topmost there, or, beside all, the nearest that is touched there because what is
/// touched is larger than what is seen.
[[nodiscard]] PieceUnder piece_under(const Part& part, Point at);

/// What a place is to a part that comes and goes.
enum class StandAs : std::uint8_t { start, present, gone };

/// A place where such a part stands before it enters, while it is present, or after it has left, so that
/// films can show it.
struct Stand {
  StandAs as = StandAs::present;
  std::string name{};
  Box box{};  ///< dp, on the screen, as large as it is shown there
  double opacity = 1.0;
};

using StandTaker = Taker<const Stand&>;

/// Settings of some kind of part as a value, to be filled without knowing which: a copy shares nothing with
/// what it was copied from. Made by `PartKind::fresh` and `settings_of`, or of a kind's own struct.
class AnySettings {
 public:
  AnySettings() = default;
  template <class S>
  requires(!std::same_as<S, AnySettings>) explicit AnySettings(S settings) : held_(std::move(settings)) {}
  /// The struct, or null where it is another.
  template <class S>
  [[nodiscard]] const S* as() const {
    return std::any_cast<S>(&held_);
  }
  template <class S>
  [[nodiscard]] S* as() {
    return std::any_cast<S>(&held_);
  }

 private:
  std::any held_;
};

/// Something that a part can be asked to do, by assistive technology, by a take, by the app.
struct PartAction {
  const char* name;
  const char* means;                                            ///< one line, for docs and --help
  void (*run)(Part&);                                           ///< does it; needs `can`
  bool (*can)(const Part&) = [](const Part&) { return true; };  ///< whether it would do something now
  WhileHeld while_held = WhileHeld::waits;  ///< what becomes of it while a finger holds the part
  bool offered = true;                      ///< told to assistive technology
};

/// Calls `Do`, a member function of `P` or a function that takes one, as an action.
template <class P, auto Do>
void run_action(Part& part) {
  std::invoke(Do, static_cast<P&>(part));
}
/// Asks `Can`, a member function of `P` or a function that takes one, whether an action can be done.
template <class P, auto Can>
bool can_do(const Part& part) {
  return std::invoke(Can, static_cast<const P&>(part));
}

/// Which way the numbers of a part grow that stands upright.
enum class Upright : std::uint8_t { none, downwards, upwards };

/// How a part that lies in another gets the lengths that nobody gives it.
enum class ChildBox : std::uint8_t {
  free,    ///< not at all: it needs a place
  column,  ///< as wide as the other, as high as its content
  row,     ///< as high as the other, as wide as its content
  whole    ///< as large as the other
};

/// What a smallest scene with such a part says, beside its `id` and `kind`, as scenes are written.
struct PartExample {
  const char* box = "";    ///< its place: "40, 200, 280, 48"
  const char* lines = "";  ///< of the part
  const char* cells = "";  ///< those it is linked to
};

/// What a kind of part tells of itself, once, beside its class: all that scenes, settings pages, readings,
/// reports, hand scripts, films, graphs, skins and checkers know of it. Made by `describe`.
struct PartKind {
  const char* name = "";   ///< what scenes call it, such as "slider"
  const char* means = "";  ///< one line, for docs and --help
  const char* role = "";   ///< WAI-ARIA
  PartExample example{};
  std::span<const ReadingInfo> readings{};
  void (*pieces)(const Part&, const PieceTaker&) = nullptr;  ///< for `pieces_of`
  /// Where on the screen the part stands when it is at `value`: for hand scripts, such as `frames.9`. Null:
  /// nowhere.
  std::optional<Point> (*place_of)(const Part&, double value) = nullptr;
  /// Where the part stands before, while and after it is here. Null: it does not come and go.
  void (*stands)(const Part&, const StandTaker&) = nullptr;
  /// False where its numbers are places on the screen, or turns: then right-to-left changes nothing.
  bool mirrors = true;
  /// What its `axis` means where that is vertical: nothing, or which way its numbers grow.
  Upright upright = Upright::none;
  /// It keeps state that no cell holds, such as a toast's time: two parts on the same cells may differ.
  bool own_state = false;
  /// The app may write it to places where it would not come to rest by itself.
  bool put_anywhere = false;
  /// Its pieces may lie beside its box.
  bool reaches_out = false;
  /// What it does with a wheel or trackpad.
  WheelUse wheel = WheelUse::none;
  /// A pinch on a trackpad, or the wheel with the control key, zooms it.
  bool wheel_zooms = false;
  /// A tap switches it over, wherever it lands.
  bool tap_toggles = false;
  /// How parts that lie in it get lengths that nobody gives. Null: not at all.
  ChildBox (*child_box)(const AnySettings&) = nullptr;
  /// What it draws of itself along its edges: a column or row in it begins within that, dp.
  Insets frame{};
  /// What it draws beyond its box, such as a label above it, dp.
  Insets margin{};
  /// How large it is when a scene does not say, dp; 0 in a direction in which it takes the room there is.
  Size usual_size{};
  /// How large it is by its content, dp. Null: its usual size.
  Size (*content_size)(const AnySettings&, const Content&, const TextWidth&) = nullptr;
  const char* keys = "";  ///< those it answers, for people; "": none
  /// Its name as people write it, such as "card deck".
  [[nodiscard]] std::string words() const;
  /// "card deck 'photos': " and what is wrong.
  [[nodiscard]] std::string fault_of(const std::string& id, const std::string& wrong) const;
  /// What it can be asked to do.
  std::span<const PartAction> actions{};
  /// All answers that only this kind gives.
  std::span<const Answer* const> answers{};

  // Filled in by `describe`.

  /// It comes and goes over others, and takes no room among them.
  bool over_others = false;
  /// What of its state an app saves before the system ends it, as numbers: what it is set to, where it
  /// stands, whether it is open; and takes it back. Null: nothing.
  std::vector<double> (*saved)(const Part&) = nullptr;
  void (*restore)(Part&, std::span<const double>) = nullptr;
  std::size_t (*settings)() = nullptr;
  const SettingInfo& (*setting)(std::size_t) = nullptr;
  AnySettings (*fresh)() = nullptr;                   ///< with defaults
  AnySettings (*settings_of)(const Part&) = nullptr;  ///< a copy of what it has
  /// Gives a setting a value. "", or what is wrong with its type; then nothing is changed. The range is
  /// looked at by `fault`.
  std::string (*put)(AnySettings&, std::size_t setting, const SettingValue&) = nullptr;
  SettingValue (*get)(const AnySettings&, std::size_t setting) = nullptr;  ///< a cell comes as a null pointer
  /// What a part would refuse of these settings in a box of this size; "": nothing.
  std::string (*fault)(const std::string& id, const Box&, const AnySettings&) = nullptr;
  std::unique_ptr<Part> (*make)(std::string id, const Box&, AnySettings&&, Context&) = nullptr;
  void (*change)(Part&, AnySettings&&) = nullptr;
};

using Kinds = std::span<const PartKind* const>;

/// The kind of this name, or null.
[[nodiscard]] const PartKind* find_kind(Kinds kinds, std::string_view name);
/// The action of this name, or null.
[[nodiscard]] const PartAction* find_action(const PartKind& kind, std::string_view name);

/// The actions that a part offers to people now.
class OfferedActions {
 public:
  explicit OfferedActions(const Part& part);
  [[nodiscard]] std::size_t size() const { return count_; }
  [[nodiscard]] bool empty() const { return count_ == 0; }
  [[nodiscard]] const PartAction& operator[](std::size_t i) const { return *found_[i]; }
  [[nodiscard]] bool has(std::string_view name) const;

 private:
  std::array<const PartAction*, 16> found_{};
  std::size_t count_ = 0;
};

/// The index of the setting of this name, or `kind.settings()`.
[[nodiscard]] std::size_t find_setting(const PartKind& kind, std::string_view name);

/// Reads `Get`, a member function of `P` or one of a piece of it, as a reading.
template <class P, auto Get>
ReadingValue read(const Part& part) {
  const auto value = std::invoke(Get, static_cast<const P&>(part));
  using V = std::remove_cvref_t<decltype(value)>;
  if constexpr (std::is_same_v<V, bool>)
    return value;
  else if constexpr (std::is_arithmetic_v<V>)
    return static_cast<double>(value);
  else
    return std::string(value);
}

namespace detail {

/// Throws `std::invalid_argument`: the settings are those of another kind than `kind`.
[[noreturn]] void refuse_settings(const PartKind& kind);

template <class P, class Any>
auto& settings_in(Any& settings) {
  auto* held = settings.template as<typename P::Settings>();
  if (held == nullptr) refuse_settings(P::described());
  return *held;
}

}  // namespace detail

/// Completes `told`, what the class `P` tells of itself, with all that follows from its types: `P::Settings`
/// with its table, `P(id, box, settings, around)`, `P::fault(id, box, settings)` ("" or what is wrong),
/// `settings()` and `change(settings)`; `saved()`, an array of numbers, and `restore(values)` where it
/// keeps a state.
template <class P>
PartKind describe(PartKind told) {
  using S = typename P::Settings;
  told.over_others = std::derived_from<P, LayerPart>;
  told.settings = [] { return settings_of<S>().size(); };
  told.setting = [](std::size_t i) -> const SettingInfo& { return settings_of<S>()[i]; };
  told.fresh = [] { return AnySettings(S{}); };
  told.settings_of = [](const Part& part) { return AnySettings(static_cast<const P&>(part).settings()); };
  told.put = [](AnySettings& settings, std::size_t i, const SettingValue& value) {
    const Setting<S>& setting = ubbo::settings_of<S>()[i];
    auto& held = detail::settings_in<P>(settings);
    return put_setting(setting, held, value) ? std::string() : type_fault(setting, value);
  };
  told.get = [](const AnySettings& settings, std::size_t i) {
    return get_setting(ubbo::settings_of<S>()[i], detail::settings_in<P>(settings));
  };
  told.fault = [](const std::string& id, const Box& box, const AnySettings& settings) {
    return P::fault(id, box, detail::settings_in<P>(settings));
  };
  told.make = [](std::string id, const Box& box, AnySettings&& settings,
                 Context& context) -> std::unique_ptr<Part> {
    return make_part<P>(std::move(id), box, std::move(detail::settings_in<P>(settings)), context);
  };
  told.change = [](Part& part, AnySettings&& settings) {
    static_cast<P&>(part).change(std::move(detail::settings_in<P>(settings)));
  };
  if constexpr (requires(const P& part) { part.saved(); }) {
    using Saved = decltype(std::declval<const P&>().saved());  // an array, or a vector of any size
    told.saved = [](const Part& part) {
      const auto saved = static_cast<const P&>(part).saved();
      return std::vector<double>(saved.begin(), saved.end());
    };
    told.restore = [](Part& part, std::span<const double> saved) {
      if constexpr (requires { std::tuple_size<Saved>::value; })
        if (saved.size() != std::tuple_size_v<Saved>) return;
      static_cast<P&>(part).restore(saved);
    };
  }
  return told;
}

}  // namespace ubbo
