// A tool that knows the app's own part as it knows ours. Try:
//   own_tool film smoker.scene.toml smoker.turn.take.csv -o dial.png
#include <ubbo/tool/run.hpp>

#include "dial.hpp"
#include "wheel.hpp"

int main(int argc, char** argv) {
  std::vector<const ubbo::PartKind*> kinds(ubbo::shipped_kinds().begin(), ubbo::shipped_kinds().end());
  kinds.push_back(&smoker::Dial::described());
  kinds.push_back(&rounds::Wheel::described());
  return ubbo::tool::run(argc, argv, kinds);
}
