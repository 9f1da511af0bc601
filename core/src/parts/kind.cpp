#include "ubbo/parts/kind.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "ubbo/parts/hover.hpp"

namespace ubbo {

const char* name_of(Role role) {
  static constexpr std::array names{"backdrop", "behind", "surface", "row",   "button", "track",
                                    "fill",     "mark",   "handle",  "label", "value"};
  return names[static_cast<std::size_t>(role)];
}

void item_pieces(Piece card, const Link<std::vector<std::string>>& titles, const PieceTaker& out) {
  constexpr double strip = 48.0;  // below the picture, for the title
  constexpr double line = 22.0;
  const auto index = static_cast<std::size_t>(card.item);
  const Box box = card.box;
  const bool titled = titles.linked() && index < titles.get().size();
  if (titled) card.image_box = Box{box.x, box.y, box.w, std::fmax(box.h - strip, 0.0)};
  out(card);
  const std::string number = std::to_string(index + 1);
  out({.role = Role::value,
       .name = titled ? "title" : "number",
       .box = titled
                  ? Box{box.x + 12.0, box.bottom() - (strip + line) / 2, std::fmax(box.w - 24.0, 0.0), line}
                  : Box{box.x, box.centre().y - 16.0, box.w, 32.0},
       .words = titled ? std::string_view(titles.get()[index]) : std::string_view(number),
       .turn = card.turn,
       .opacity = card.opacity,
       .item = card.item});
}

namespace {

// A button is pressed and a handle grabbed, where a kind does not say.
Cursor cursor_of(const Part& part, const Piece& piece) {
  Cursor cursor = piece.cursor;
  if (cursor == Cursor::automatic && piece.role == Role::button) cursor = Cursor::pointer;
  if (cursor == Cursor::automatic && piece.role == Role::handle) cursor = Cursor::grab;
  if (cursor != Cursor::automatic && !part.enabled()) return Cursor::not_allowed;
  return cursor == Cursor::grab && piece.held ? Cursor::grabbing : cursor;
}

// By its item, or by its place among those without one.
int key_of(const Piece& piece, int& counted) {
  if (piece.cursor == Cursor::automatic) return 0;
  return piece.item >= 0 ? piece.item + 1 : -(++counted);
}

// The picture larger, within where it was.
void enlarge(Piece& piece, const HoverContent& hover, double share) {
  if (hover.scale == 1.0 || piece.image.empty()) return;
  const Box seen = piece.image_box.value_or(piece.box);
  const double by = 1.0 + (hover.scale - 1.0) * share;
  const Size size{seen.w * by, seen.h * by};
  const Point middle = seen.centre();
  piece.image_box = Box{middle.x - size.w / 2, middle.y - size.h / 2, size.w, size.h};
  piece.image_clip = seen;
}

// Shade and caption over a piece that is hovered.
void hover_pieces(const Part& part, const Piece& piece, int key, const PieceTaker& out) {
  const HoverContent& hover = *part.content().hover;
  const Box whole = piece.image_clip ? *piece.image_clip : piece.image_box.value_or(piece.box);
  const double left = (1.0 - part.hover(key, HoverShare::offset)) * hover.distance;
  constexpr std::array<Point, 4> ways{Point{-1, 0}, Point{0, -1}, Point{1, 0}, Point{0, 1}};
  constexpr std::array sides{Side::left, Side::up, Side::right, Side::down};
  const auto way =
      hover.from == HoverFrom::pointer
          ? std::find(sides.begin(), sides.end(), part.context().hover->side_of(part, key)) - sides.begin()
          : static_cast<std::ptrdiff_t>(hover.from) - 1;
  const Point off = ways[static_cast<std::size_t>(way)];
  const Box at = whole + Point{off.x * whole.w * left, off.y * whole.h * left};
  const double opacity = part.hover(key, HoverShare::opacity) * piece.opacity;
  Piece over{
      .role = Role::fill, .name = "overlay", .box = at, .turn = piece.turn, .clip = whole, .notice = true};
  if (piece.clip) over.clip = common(whole, *piece.clip);
  over.opacity = hover.overlay * opacity;
  over.item = piece.item;
  if (hover.overlay > 0.0) out(over);
  if (hover.words.empty()) return;
  constexpr std::string_view each_item = "{item}";
  constexpr double line = 26.0;
  const std::size_t number = hover.words.find(each_item);
  const std::string words = number == std::string::npos || piece.item < 0
                                ? hover.words
                                : joined({hover.words.substr(0, number), std::to_string(piece.item + 1),
                                          hover.words.substr(number + each_item.size())});
  over.role = Role::value;
  over.name = "caption";
  over.words = words;
  over.opacity = opacity;
  over.box = {at.x + 12.0, at.centre().y - line / 2, std::fmax(at.w - 24.0, 0.0), line};
  out(over);
}

}  // namespace

PieceUnder piece_under(const Part& part, Point at) {
  constexpr double least = 40.0;  // dp that a finger is given at least
  PieceUnder found;
  double nearest = HUGE_VAL;
  int counted = 0;
  part.kind().pieces(part, [&](const Piece& shown) {
    const Cursor cursor = cursor_of(part, shown);
    Piece piece{.box = shown.box, .item = shown.item, .cursor = cursor};
    const int key = key_of(piece, counted);
    if (key == 0 || (shown.clip && !shown.clip->contains(at))) return;
    const double around = std::fmax(0.0, (least - std::fmin(shown.box.w, shown.box.h)) / 2);
    const bool on = shown.box.contains(at);
    if (!on && !inner(shown.box, {-around, -around, -around, -around}).contains(at)) return;
    const double distance = on ? -1.0 : length(at - shown.box.centre());
    if (distance > nearest || (!on && distance == nearest)) return;
    nearest = distance;
    found = {key, cursor, shown.box};
  });
  return found;
}

void pieces_of(const Part& part, const PieceTaker& out) {
  const Content& content = part.content();
  constexpr std::string_view each_item = "{item}";
  constexpr double line = 20.0;
  const std::size_t at = content.image.find(each_item);
  std::string image = content.image;
  bool pictured = image.empty();
  bool labelled = false;
  const bool hovers = part.hover() > 0.0;
  int counted = 0;
  part.kind().pieces(part, [&](Piece piece) {
    const bool lies = piece.role == Role::surface || piece.role == Role::row || piece.role == Role::button;
    if (lies && piece.rank == Rank::plain) piece.rank = content.rank;
    piece.cursor = cursor_of(part, piece);
    const int key = key_of(piece, counted);
    if (hovers && key != 0) piece.hover = part.hover(key);
    if (lies && (piece.item >= 0 ? at != std::string::npos : !pictured)) {
      if (piece.item >= 0)
        image = joined({content.image.substr(0, at), std::to_string(piece.item + 1),
                        content.image.substr(at + each_item.size())});
      piece.image = image;
      pictured = true;
    }
    const bool shows_over = content.hover && lies && hovers && part.hover(key, HoverShare::opacity) > 0.0;
    if (shows_over) enlarge(piece, *content.hover, part.hover(key, HoverShare::scale));
    if (!labelled && (piece.role == Role::label || piece.name == std::string_view("label"))) {
      labelled = true;
      piece.rank = content.rank;
      piece.glyph = content.glyph;
      piece.detail = content.detail;
      // Two lines where there was one, about the same middle.
      if (!content.detail.empty() && piece.box.h < 2 * line)
        piece.box = {piece.box.x, piece.box.centre().y - line, piece.box.w, 2 * line};
    }
    // A picture of an item says which one it is.
    if (piece.item >= 0 && at != std::string::npos && piece.name == std::string_view("number")) return;
    out(piece);
    if (shows_over) hover_pieces(part, piece, key, out);
  });
}

std::string PartKind::words() const {
  std::string written = name;
  std::replace(written.begin(), written.end(), '-', ' ');
  return written;
}

std::string PartKind::fault_of(const std::string& id, const std::string& wrong) const {
  return joined({words(), " '", id, "': ", wrong});
}

const char* type_of(const SettingValue& value) {
  static constexpr std::array names{"a number", "a text", "a list of numbers",
                                    "a motion", "a cell", "a length"};
  return names[value.index()];
}

bool takes_type(const SettingInfo& setting, const SettingValue& value) {
  switch (setting.kind) {
    case SettingKind::text:
      return std::holds_alternative<std::string>(value);
    case SettingKind::numbers:
      return std::holds_alternative<std::vector<double>>(value);
    case SettingKind::transition:
      return std::holds_alternative<Transition>(value);
    case SettingKind::length:
      return std::holds_alternative<Length>(value) || std::holds_alternative<double>(value);
    case SettingKind::cell: {
      const auto* cell = std::get_if<AnyCell>(&value);
      return cell != nullptr && static_cast<CellKind>(cell->index()) == setting.cell_kind;
    }
    default:
      return std::holds_alternative<double>(value);
  }
}

bool put_setting(const SettingAccess& setting, void* settings, const SettingValue& value) {
  const auto member = [&] { return setting.to(settings); };
  if (setting.inner != nullptr) return put_setting(*setting.inner, member(), value);
  if (!takes_type(setting, value)) return false;
  switch (setting.kind) {
    case SettingKind::text:
      *static_cast<std::string*>(member()) = std::get<std::string>(value);
      break;
    case SettingKind::numbers:
      *static_cast<std::vector<double>*>(member()) = std::get<std::vector<double>>(value);
      break;
    case SettingKind::transition:
      *static_cast<Transition*>(member()) = std::get<Transition>(value);
      break;
    case SettingKind::length:
      *static_cast<Length*>(member()) =
          std::holds_alternative<double>(value) ? Length(std::get<double>(value)) : std::get<Length>(value);
      break;
    case SettingKind::cell:
      setting.link(settings, std::get<AnyCell>(value));
      break;
    default:
      setting.set(settings, std::get<double>(value));
  }
  return true;
}

SettingValue get_setting(const SettingAccess& setting, const void* settings) {
  if (setting.inner != nullptr) return get_setting(*setting.inner, setting.at(settings));
  switch (setting.kind) {
    case SettingKind::text:
      return *static_cast<const std::string*>(setting.at(settings));
    case SettingKind::numbers:
      return *static_cast<const std::vector<double>*>(setting.at(settings));
    case SettingKind::transition:
      return *static_cast<const Transition*>(setting.at(settings));
    case SettingKind::length:
      return *static_cast<const Length*>(setting.at(settings));
    case SettingKind::cell:
      return AnyCell{};
    default:
      return setting.get(settings);
  }
}

std::string type_fault(const SettingInfo& setting, const SettingValue& value) {
  const auto* cell = std::get_if<AnyCell>(&value);
  const std::string got =
      cell == nullptr ? type_of(value)
                      : joined({"a cell that holds a ", name_of(static_cast<CellKind>(cell->index()))});
  return joined({setting.name, " is given ", got, "; it takes ", what_it_takes(setting)});
}

namespace detail {

void refuse_settings(const PartKind& kind) {
  refuse(joined({"settings of another kind of part are not taken; it takes those of a ", kind.words()}));
}

}  // namespace detail

const PartKind* find_kind(Kinds kinds, std::string_view name) {
  for (const PartKind* kind : kinds)
    if (kind->name == name) return kind;
  return nullptr;
}

std::size_t find_setting(const PartKind& kind, std::string_view name) {
  std::size_t i = 0;
  while (i < kind.settings() && kind.setting(i).name != name) ++i;
  return i;
}

const PartAction* find_action(const PartKind& kind, std::string_view name) {
  for (const PartAction& action : kind.actions)
    if (action.name == name) return &action;
  return nullptr;
}

OfferedActions::OfferedActions(const Part& part) {
  for (const PartAction& action : part.kind().actions)
    if (count_ < found_.size() && action.offered && action.can(part)) found_[count_++] = &action;
}

bool OfferedActions::has(std::string_view name) const {
  return std::any_of(found_.begin(), found_.begin() + static_cast<std::ptrdiff_t>(count_),
                     [&](const PartAction* action) { return action->name == name; });
}

}  // namespace ubbo
