#pragma once

#include <CLI/App.hpp>
#include <string>

namespace ubbo::tool {

/// What the tool answers to the shell.
enum Exit : int { done = 0, found_wrong = 1, bad_input = 2 };

/// Each adds its verb to the command line; running it sets `exit`.
void add_demo(CLI::App& app, int& exit);
void add_film(CLI::App& app, int& exit);
void add_replay(CLI::App& app, int& exit);
void add_settings(CLI::App& app, int& exit);
void add_take(CLI::App& app, int& exit);
void add_why(CLI::App& app, int& exit);

/// What `film` is asked for.
struct FilmOrder {
  std::string scene;
  std::string take;
  std::string out;
  int frames = 12;
  std::string size = "1280x800";
  bool dusk = false;
};

/// Replays and draws a film; throws as reading, replaying and saving do.
void shoot_film(const FilmOrder& order);

}  // namespace ubbo::tool
