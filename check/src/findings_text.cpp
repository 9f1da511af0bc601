#include <fmt/format.h>

#include <cctype>
#include <cstring>

#include "ubbo/check/check.hpp"
#include "ubbo/io/text/json.hpp"

namespace ubbo::check {

using io::Json;
using io::json_text;

namespace {

// A path as a URI has it: what RFC 3986 does not let stand is written as %XX.
std::string uri_of(const std::string& file) {
  std::string uri;
  for (const char c : file) {
    const auto byte = static_cast<unsigned char>(c);
    const bool stands = byte < 0x80 && (std::isalnum(byte) != 0 || std::strchr("-._~/", c) != nullptr);
    uri += stands ? std::string(1, c) : fmt::format("%{:02X}", byte);
  }
  return uri;
}

}  // namespace

std::string findings_json(const std::string& file, const std::vector<Finding>& findings) {
  Json list = Json::array();
  for (const Finding& one : findings) {
    Json entry{{"rule", one.rule->name},     {"of", one.of},       {"line", one.place.line},
               {"column", one.place.column}, {"found", one.found}, {"why", one.rule->means},
               {"remedy", one.remedy}};
    if (!one.silenced.empty()) entry["silenced"] = one.silenced;
    list.push_back(std::move(entry));
  }
  return json_text(Json{{"scene", file}, {"findings", std::move(list)}});
}

std::string findings_sarif(const std::string& file, const std::vector<Finding>& findings) {
  Json rules = Json::array();
  for (const Rule& rule : check_rules())
    rules.push_back({{"id", rule.name}, {"shortDescription", {{"text", rule.means}}}});
  Json results = Json::array();
  for (const Finding& one : findings) {
    Json place{{"artifactLocation", {{"uri", uri_of(file)}}}};
    if (one.place.line > 0)
      place["region"] = {{"startLine", one.place.line}, {"startColumn", one.place.column}};
    Json result{{"ruleId", one.rule->name},
                {"level", "warning"},
                {"message", {{"text", fmt::format("{}: {}. {}.", one.found, one.rule->means, one.remedy)}}},
                {"locations", Json::array({Json{{"physicalLocation", std::move(place)}}})}};
    if (!one.silenced.empty())
      result["suppressions"] = Json::array({Json{{"kind", "inSource"}, {"justification", one.silenced}}});
    results.push_back(std::move(result));
  }
  return json_text(
      Json{{"$schema",
            "https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json"},
           {"version", "2.1.0"},
           {"runs", Json::array({Json{{"tool", {{"driver", {{"name", "ubbo"}, {"rules", std::move(rules)}}}}},
                                      {"results", std::move(results)}}})}});
}

}  // namespace ubbo::check
