// One plan and one ready take are run on several threads at once, each with numbers of its own, and come to
// what they come to on one thread. Built with ThreadSanitizer by the preset `threads`.
#include <cstdio>
#include <string>
#include <thread>
#include <vector>

#include "demo_files.hpp"
#include "ubbo/io/replay/replay.hpp"
#include "ubbo/io/replay/report.hpp"

namespace {

using namespace ubbo;

struct Work {
  io::Take take;
  io::Plan plan;
  io::ReadyTake ready;
  std::vector<io::Variation> variations;  // one for each run

  explicit Work(io::Take recorded, const std::string& scene_name)
      : take(std::move(recorded)), plan(scene(scene_name)), ready(take, plan.scene()) {
    for (const io::PartPlan& part : plan.scene().parts)
      for (std::size_t i = 0; i < part.kind->settings() && variations.size() < 12; ++i) {
        const SettingInfo& setting = part.kind->setting(i);
        if (setting.kind == SettingKind::time)
          variations.push_back(plan.vary(part.id, setting.name, std::min(setting.max, 150.0)));
      }
  }

  static io::Scene scene(const std::string& name) {
    for (const demo::File& file : demo::files())
      if (file.name == name) return io::parse_scene(file.text, name);
    return {};
  }

  [[nodiscard]] std::string outcome(std::size_t which) const {
    try {
      io::SceneRun run(plan, 256, {&variations[which], 1});
      io::Replay replay(run, ready, {.max_decisions = 200});
      replay.finish();
      return io::replay_json(run, replay);
    } catch (const std::exception& refused) {
      return refused.what();  // what does not go together is refused on every thread
    }
  }
};

}  // namespace

int main() {
  std::size_t runs = 0;
  std::size_t wrong = 0;
  for (const demo::File& file : demo::files()) {
    if (!file.name.ends_with(".take.csv")) continue;
    io::Take take = io::parse_take(file.text, std::string(file.name));
    const std::string scene = take.note("scene");
    const Work work(std::move(take), scene);
    std::vector<std::string> alone;
    for (std::size_t i = 0; i < work.variations.size(); ++i) alone.push_back(work.outcome(i));
    std::vector<std::string> batch(alone.size());
    std::vector<std::thread> pool;
    constexpr std::size_t threads = 4;
    for (std::size_t t = 0; t < threads; ++t)
      pool.emplace_back([&, t] {
        for (std::size_t i = t; i < batch.size(); i += threads) batch[i] = work.outcome(i);
      });
    for (std::thread& one : pool) one.join();
    for (std::size_t i = 0; i < alone.size(); ++i, ++runs)
      if (alone[i] != batch[i]) ++wrong, std::printf("%s: run %zu differs\n", file.text.data(), i);
  }
  std::printf("%zu runs on four threads, %zu unlike those on one\n", runs, wrong);
  return wrong == 0 && runs > 100 ? 0 : 1;
}
