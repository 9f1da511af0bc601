// What viewers say to each other, and what a request may have, without sockets.
#include "hub.hpp"

#include <algorithm>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "certificate.hpp"
#include "ran.hpp"
#include "requests.hpp"
#include "ubbo/file/read.hpp"
#include "ubbo/live/export.hpp"
#include "ubbo/testing/check.hpp"

namespace {

using namespace ubbo::live;
using Json = nlohmann::json;
using ubbo::test::Folder;

struct Room {
  Folder folder;
  std::string file;
  Source source;
  std::map<int, std::vector<Json>> heard;
  std::vector<std::string> logged;
  Hub hub;

  Room()
      : file(folder / "inspection.scene.toml"),
        source(copied(file), ""),
        hub(
            source,
            [this](int viewer, const Hub::Text& text) { heard[viewer].push_back(Json::parse(*text)); },
            [this](const std::string& words) { logged.push_back(words); }) {}

  static std::string copied(const std::string& to) {
    std::filesystem::copy_file(ubbo::test::demo + "inspection.scene.toml", to,
                               std::filesystem::copy_options::overwrite_existing);
    return to;
  }
  Json last(int viewer) { return heard[viewer].empty() ? Json() : heard[viewer].back(); }
};

std::string take_text = "time_ms,contact,phase,x,y\n0,1,down,1,1\n5,1,up,1,1\n";

}  // namespace

TEST_CASE("one touches at a time, the others follow, and who goes gives the stage back") {
  Room room;
  room.hub.join(1);
  room.hub.join(2);
  CHECK(std::any_of(room.heard[1].begin(), room.heard[1].end(),
                    [](const Json& told) { return told["what"] == "viewers" && told["count"] == 2; }));
  room.hub.hear(1, R"({"what":"given","given":[{"touch":{"x":1}}]})");
  CHECK(room.last(2)["given"][0]["touch"]["x"] == 1);
  room.hub.hear(2, R"({"what":"given","given":[]})");
  CHECK(room.last(2)["whose"] == "others");
  CHECK(room.last(1)["whose"] == "yours");
  room.hub.hear(2, R"({"what":"rests"})");  // it is not theirs to give back
  room.hub.hear(2, R"({"what":"given","given":[]})");
  CHECK(room.last(2)["whose"] == "others");
  room.hub.leave(1);
  CHECK(std::any_of(room.heard[2].begin(), room.heard[2].end(),
                    [](const Json& told) { return told["what"] == "turn" && told["whose"] == "free"; }));
  room.hub.hear(2, R"({"what":"given","given":[]})");
  CHECK(room.last(2)["whose"] == "yours");
  // Who comes later gets what has been changed.
  room.hub.hear(2, R"({"what":"changes","changes":[["frames.step","2"]]})");
  room.hub.join(3);
  CHECK(room.heard[3].front()["changes"][0][1] == "2");
}

TEST_CASE("what is saved is in the file, what is kept is a take, and what is refused changes nothing") {
  Room room;
  room.hub.join(1);
  const std::string before = ubbo::file::read(room.file);
  room.hub.hear(1, R"({"what":"save","changes":[["frames.step","2"]]})");
  const std::string after = ubbo::file::read(room.file);
  CHECK(after != before);
  CHECK_THAT(after, Catch::Contains("step = 2"));
  CHECK(room.heard[1][room.heard[1].size() - 2]["what"] == "scene");
  CHECK(room.last(1)["changes"].empty());
  room.hub.hear(1, R"({"what":"save","changes":[["frames.step","-2"]]})");
  CHECK(room.last(1)["what"] == "refused");
  CHECK(ubbo::file::read(room.file) == after);
  for (int i = 0; i < 2; ++i)
    room.hub.hear(1, Json{{"what", "keep"}, {"name", "../a b"}, {"text", take_text}}.dump());
  CHECK(ubbo::file::read(room.folder / "inspection.---a-b.take.csv") == take_text);
  CHECK(ubbo::file::read(room.folder / "inspection.---a-b-2.take.csv") == take_text);
  room.hub.hear(1, R"({"what":"keep","name":"x","text":"no take"})");
  CHECK(room.last(1)["what"] == "refused");
  CHECK_FALSE(std::filesystem::exists(room.folder / "inspection.x.take.csv"));
}

TEST_CASE("a message that is none gets a refusal and a line in the log, whatever it is") {
  Room room;
  room.hub.join(1);
  const std::string scene = ubbo::file::read(room.file);
  std::string deep(100'000, '[');
  for (const std::string& odd :
       {std::string(), std::string("[]"), std::string("{}"), std::string("{\"what\":7}"),
        std::string("{\"what\":\"given\"}"), std::string("{\"what\":\"given\",\"given\":7}"),
        std::string("{\"what\":\"changes\",\"changes\":[7]}"),
        std::string("{\"what\":\"save\",\"changes\":[[]]}"), std::string("{\"what\":\"keep\"}"),
        std::string("\xff\xfe"), deep}) {
    const std::size_t heard = room.heard[1].size();
    const std::size_t logged = room.logged.size();
    room.hub.hear(1, odd);
    CAPTURE(odd.substr(0, 60));
    CHECK(room.heard[1].size() == heard + 1);
    CHECK(room.last(1)["what"] == "refused");
    CHECK(room.logged.size() == logged + 1);
  }
  PROPERTY("any text", [&] {
    room.hub.hear(1, *rc::gen::arbitrary<std::string>());
    room.hub.hear(9, *rc::gen::arbitrary<std::string>());  // of who never came
  });
  CHECK(ubbo::file::read(room.file) == scene);
}

TEST_CASE("nothing but the page, the scene and its images is reached, by nobody from elsewhere") {
  Room room;
  const std::vector<PageFile> page{{"index.html", "<p>"}, {"page.js", "1"}};
  Requests requests(room.hub, room.source, page, {"http://127.0.0.1:80"}, "");
  const auto status = [&](std::string_view target, std::string_view host = "127.0.0.1:80",
                          std::string_view origin = "", std::string_view method = "GET") {
    return requests.answer({.method = method, .target = target, .host = host, .origin = origin}).status;
  };
  CHECK(status("/") == 200);
  CHECK(status("/page.js?x") == 200);
  CHECK(status("/scene.json") == 200);
  for (const char* target : {"/inspection.scene.toml", "/../inspection.scene.toml", "//etc/passwd", "", "*",
                             "/images/", "/images/../inspection.scene.toml", "/page.js/", "/%2e%2e/x"})
    CHECK(status(target) == 404);
  CHECK(status("/", "elsewhere.example") == 421);
  CHECK(status("/", "") == 421);
  CHECK(status("/", "127.0.0.1:80", "http://elsewhere.example") == 403);
  CHECK(status("/", "127.0.0.1:80", "null") == 403);
  CHECK(status("/", "127.0.0.1:80", "", "POST") == 405);
  CHECK(status("/link") == 426);
}

TEST_CASE("an address with a token counts once, and then the browser that used it is known") {
  Room room;
  const std::vector<PageFile> page{{"index.html", "<p>"}};
  Requests requests(room.hub, room.source, page, {"https://10.0.0.1:80"}, secret());
  const auto asked = [&](const std::string& target, const std::string& cookie = "") {
    return requests.answer({.method = "GET", .target = target, .host = "10.0.0.1:80", .cookie = cookie});
  };
  const std::string token = requests.token();
  CHECK(token.size() == 32);
  CHECK(asked("/").status == 403);
  CHECK(asked("/link").status == 403);
  CHECK(asked("/?token=" + std::string(32, '0')).status == 403);
  CHECK(asked("/scene.json?token=" + token).status == 403);
  const Answer let_in = asked("/?token=" + token);
  CHECK(let_in.status == 303);
  CHECK(requests.token_was_used());
  std::string cookie;
  for (const auto& [name, value] : let_in.headers)
    if (name == "Set-Cookie") cookie = value.substr(0, value.find(';'));
  CHECK(asked("/", cookie).status == 200);
  CHECK(asked("/scene.json", "other=1; " + cookie + "; more=2").status == 200);
  CHECK(asked("/", "ubbo_guest=").status == 403);
  CHECK(asked("/?token=" + token).status == 403);
  CHECK(requests.token() != token);
}

TEST_CASE("an exported page stands by itself, and no text of a scene ends its script") {
  Room room;
  std::string text = ubbo::file::read(room.file);
  text.replace(text.find("title = \""), 9, "title = \"</script><!--");
  ubbo::test::write(room.file, text);
  const std::vector<PageFile> page{
      {"index.html",
       "<head><link rel=\"stylesheet\" href=\"page.css\"><script type=\"module\" "
       "src=\"page.js\"></script></head><body></body>"},
      {"page.css", "@font-face{src:url(inter-400.woff2)}"},
      {"page.js", "x=\"</script>\""},
      {"ubbo.wasm", std::string_view("\0asm", 4)},
      {"inter-400.woff2", "font"}};
  export_file(room.source, page, room.folder / "one.html");
  const std::string one = ubbo::file::read(room.folder / "one.html");
  std::size_t scripts = 0;
  for (std::size_t at = one.find("</script"); at != std::string::npos; at = one.find("</script", at + 1))
    ++scripts;
  CHECK(scripts == 2);
  CHECK_THAT(one, !Catch::Contains("<!--") && Catch::Contains("data:font/woff2;base64,Zm9udA=="));
  export_folder(room.source, page, room.folder / "out");
  for (const PageFile& file : page)
    CHECK(ubbo::file::read((room.folder.path / "out" / file.name).string()) == file.bytes);
  CHECK(Json::parse(ubbo::file::read((room.folder.path / "out/scene.json").string()))["served"] == false);
  CHECK_THROWS_WITH(export_file(room.source, {}, room.folder / "none.html"),
                    Catch::Contains("carries no page"));
}

TEST_CASE("a certificate that is made names where it is good, and what is packed unpacks") {
  const Certificate made = make_certificate({"127.0.0.1", "localhost"});
  CHECK_THAT(made.chain, Catch::StartsWith("-----BEGIN CERTIFICATE-----"));
  CHECK_THAT(made.key, Catch::Contains("PRIVATE KEY"));
  const Folder folder;
  ubbo::test::write(folder / "c.pem", made.chain);
  const auto told = ubbo::test::run("openssl x509 -noout -ext subjectAltName -in " + (folder / "c.pem"));
  CHECK_THAT(told.out, Catch::Contains("127.0.0.1") && Catch::Contains("localhost"));
  ubbo::test::write(folder / "t.gz", gzip("honey, brood, pollen"));
  CHECK(ubbo::test::run("gzip -dc " + (folder / "t.gz")).out == "honey, brood, pollen");
}
