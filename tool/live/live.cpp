#include "ubbo/tool/live.hpp"

#include <fmt/format.h>
#include <qrencode.h>
#include <spdlog/sinks/stdout_color_sinks.h>
#include <spdlog/spdlog.h>

#include <filesystem>
#include <memory>
#include <stdexcept>

#include "commands.hpp"
#include "say.hpp"
#include "ubbo/live/export.hpp"
#include "ubbo/live/server.hpp"

namespace ubbo::tool {

namespace {

struct LiveOrder {
  std::string scene;
  std::string takes;
  std::string listen;
  int port = 4780;
  bool plain = false;
  std::string certificate;
  std::string key;
  std::string out;
};

// Two rows of the code in each line of text, dark on light whatever the terminal's colours are.
std::string qr_text(const std::string& words) {
  const std::unique_ptr<QRcode, void (*)(QRcode*)> code(
      QRcode_encodeString(words.c_str(), 0, QR_ECLEVEL_L, QR_MODE_8, 1), QRcode_free);
  if (code == nullptr) return {};
  constexpr int quiet = 2;
  const auto dark = [&](int x, int y) {
    const bool inside = x >= 0 && y >= 0 && x < code->width && y < code->width;
    return inside && (code->data[y * code->width + x] & 1U) != 0;
  };
  std::string text;
  for (int y = -quiet; y < code->width + quiet; y += 2) {
    text += "\x1b[30;107m";
    for (int x = -quiet; x < code->width + quiet; ++x) {
      const bool upper = dark(x, y);
      const bool lower = dark(x, y + 1);
      text += upper && lower ? "█" : upper ? "▀" : lower ? "▄" : " ";
    }
    text += "\x1b[0m\n";
  }
  return text;
}

void say_address(const LiveOrder& order, const std::string& address) {
  say("{} is at ", std::filesystem::path(order.scene).filename().string());
  say_in(Ink::name, "{}\n", address);
  if (on_terminal(stdout)) {
    std::fputs(qr_text(address).c_str(), stdout);
    std::fflush(stdout);
  }
  finish_saying();
}

void serve(const LiveOrder& order, live::Source& source, std::span<const live::PageFile> page) {
  live::ServerSettings settings;
  settings.port = static_cast<std::uint16_t>(order.port);
  if (!order.listen.empty()) {
    settings.listen = order.listen;
    settings.token = true;
    settings.encrypted = !order.plain;
    settings.certificate = order.certificate;
    settings.key = order.key;
  }
  const auto log = spdlog::stderr_color_st("live");
  log->set_pattern("%H:%M:%S %v");
  if (!order.listen.empty() && order.plain)
    log->warn("without TLS a phone's browser gives no coalesced touches and no clipboard");
  if (settings.encrypted && order.certificate.empty())
    log->info("the certificate is made for this run; the browser asks once whether to trust it");
  live::Server server(
      source, page, settings, [&log](const std::string& words) { log->info("{}", words); },
      [&order](const std::string& address) { say_address(order, address); });
  warn("an interrupt ends it\n");
  server.run();
}

int live(const LiveOrder& order, const Kit& kit) {
  const auto page = live::page_files();
  if (page.empty())
    throw std::invalid_argument(
        "live: this ubbo was built without the page; './dev live' builds one with it");
  live::Source source(order.scene, order.takes, kit.kinds);
  if (order.out.empty()) {
    serve(order, source, page);
    return done;
  }
  const bool one = order.out.ends_with(".html");
  if (one)
    live::export_file(source, page, order.out);
  else
    live::export_folder(source, page, order.out);
  say("{}: {}\n", order.out,
      one ? "one file that a browser opens from disk" : "files for any static host; index.html is the page");
  return done;
}

}  // namespace

void add_live(Verb app, int& exit, const Kit& kit) {
  auto order = std::make_shared<LiveOrder>();
  const Verb verb = app.add_verb(
      "live", "Put a scene under the finger in a page, with its settings and decisions beside it");
  verb.add_option("SCENE", order->scene, "scene file (*.scene.toml)").required();
  verb.add_option("--port", order->port, "port; 0: any that is free").between(0, 65535).with_default();
  const Option listen = verb.add_option("--listen", order->listen,
                                        "an address of this machine that others reach, or 0.0.0.0 for all; "
                                        "without it only this machine does. The "
                                        "page is then encrypted, and its address counts once");
  verb.add_option("--takes", order->takes, "folder of its takes; without it the scene's own");
  const Option plain =
      verb.add_flag("--plain", order->plain,
                    "no TLS with --listen; a phone then gives no coalesced touches and no clipboard")
          .needs(listen);
  const Option certificate =
      verb.add_option("--certificate", order->certificate, "certificate, a PEM file; without it one is made")
          .needs(listen)
          .excludes(plain);
  verb.add_option("--key", order->key, "key of the certificate, a PEM file").needs(certificate);
  verb.add_option("--export", order->out,
                  "write a folder of files for any static host, or one FILE.html, instead of serving");
  verb.footer(
      "Example:  ubbo live heather-ridge/hive-sheet.scene.toml\n"
      "Example:  ubbo live heather-ridge/hive-sheet.scene.toml --export hive-sheet.html\n"
      "Exit codes:  0 done or interrupted, 2 bad input or usage.");
  verb.when_called([order, &exit, &kit] { exit = live(*order, kit); });
}

}  // namespace ubbo::tool
