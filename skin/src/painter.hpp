#pragma once

#include "ubbo/skin/comb.hpp"

namespace ubbo::skin {

/// Paints the pieces of a part, one after another.
class Painter {
 public:
  Painter(Picture& picture, const CombColours& colours, const Lettering& lettering, bool right_to_left)
      : picture_(&picture), colours_(&colours), lettering_(&lettering), right_to_left_(right_to_left) {}

  void paint(const Piece& piece);

 private:
  void add(Shape shape) { picture_->push_back(std::move(shape)); }
  void add_all(Picture shapes);

  void behind(const Piece& piece);
  void surface(const Piece& piece);
  void row(const Piece& piece);
  void button(const Piece& piece);
  void track(const Piece& piece);
  void fill(const Piece& piece);
  void mark(const Piece& piece);
  void handle(const Piece& piece);
  void label(const Piece& piece);
  void value(const Piece& piece);

  // A line of text in a box: as large as it may be, cut where it does not fit.
  struct Line {
    std::string_view words;
    Box box{};
    double size = row_size;
    bool bold = false;
    Align align = Align::left;
    double turn = 0.0;  // about the middle of the box
  };
  void write(const Line& line, const Colour& colour);
  // What lies over a piece that a pointer is over: enough to be seen, and text on it stays readable.
  [[nodiscard]] Colour hovered(const Piece& piece) const {
    return colours_->heather.with_alpha(0.09 * piece.hover * piece.opacity);
  }
  [[nodiscard]] Align leading() const { return right_to_left_ ? Align::right : Align::left; }

  Picture* picture_;
  const CombColours* colours_;
  const Lettering* lettering_;
  bool right_to_left_;
};

}  // namespace ubbo::skin
