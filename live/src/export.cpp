#include "ubbo/live/export.hpp"

#include <fmt/format.h>

#include <filesystem>
#include <stdexcept>

#include "ubbo/file/whole_file.hpp"
#include "ubbo/io/text/base64.hpp"
#include "ubbo/io/text/json.hpp"

namespace ubbo::live {

namespace {

namespace fs = std::filesystem;

std::string_view file_in(std::span<const PageFile> page, std::string_view name) {
  for (const PageFile& file : page)
    if (file.name == name) return file.bytes;
  throw std::runtime_error(fmt::format("this ubbo carries no page ({} is not in it)", name));
}

std::string base64_of(std::string_view bytes) {
  return io::to_base64({reinterpret_cast<const std::uint8_t*>(bytes.data()), bytes.size()});
}

void replace_all(std::string& text, std::string_view what, std::string_view by) {
  for (std::size_t at = text.find(what); at != std::string::npos; at = text.find(what, at + by.size()))
    text.replace(at, what.size(), by);
}

}  // namespace

void export_folder(Source& source, std::span<const PageFile> page, const std::string& folder) {
  (void)file_in(page, "index.html");
  const fs::path there(folder);
  fs::create_directories(there / "images");
  for (const PageFile& file : page) file::write_whole((there / file.name).string(), file.bytes);
  file::write_whole((there / "scene.json").string(), source.json(false, false));
  for (const auto& [name, bytes] : source.images()) {
    const fs::path path = there / "images" / name;
    fs::create_directories(path.parent_path());
    file::write_whole(path.string(), bytes);
  }
}

void export_file(Source& source, std::span<const PageFile> page, const std::string& path) {
  std::string style(file_in(page, "page.css"));
  for (const PageFile& file : page)
    if (file.name.ends_with(".woff2"))
      replace_all(style, file.name, fmt::format("data:font/woff2;base64,{}", base64_of(file.bytes)));
  std::string script(file_in(page, "page.js"));
  // What would end the script early.
  replace_all(script, "</script", "<\\/script");
  replace_all(script, "<!--", "<\\!--");
  std::string data = fmt::format(R"({{"source":{},"module":"{}"}})", source.json(false, true),
                                 base64_of(file_in(page, "ubbo.wasm")));
  replace_all(data, "<", "\\u003c");
  std::string html(file_in(page, "index.html"));
  // The script stands behind what it reads, and `defer` means nothing to one that is in the file.
  for (std::size_t at = html.find(R"(<link rel="preload")"); at != std::string::npos;
       at = html.find(R"(<link rel="preload")"))
    html.erase(at, html.find('\n', at) + 1 - at);
  replace_all(html, R"(<script type="module" src="page.js"></script>)", "");
  replace_all(html, R"(<link rel="stylesheet" href="page.css">)", "<style>" + style + "</style>");
  replace_all(html, "</body>",
              fmt::format("<script type=\"application/json\" id=\"ubbo-data\">{}</script>\n<script "
                          "type=\"module\">{}</script>\n</body>",
                          data, script));
  file::write_whole(path, html);
}

}  // namespace ubbo::live
