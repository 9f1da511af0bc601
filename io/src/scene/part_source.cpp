#include "part_source.hpp"

#include <algorithm>

namespace ubbo::io {

namespace {

constexpr int max_depth = 8;

std::string text_in(const PartSource& source, std::string_view key) {
  const toml::node* node = source.get(key);
  return node == nullptr ? std::string() : node->value_or(std::string());
}

// All parts of a scene with the tables that say what they are, as far as those can be read.
class Search {
 public:
  Search(toml::table& root, const std::string& id, std::vector<std::string>& known)
      : root_(&root), id_(&id), known_(&known) {}

  toml::table* find() {
    const toml::node* parts = root_->get("part");
    if (parts == nullptr || parts->as_array() == nullptr) return nullptr;
    for (const toml::node& entry : *parts->as_array())
      if (const toml::table* table = entry.as_table()) look({.layers = {table}}, 0);
    return found_;
  }

 private:
  void look(PartSource source, int depth) {
    if (found_ != nullptr || depth > max_depth) return;
    const toml::node* each = source.get("each");
    if (const toml::node* name = source.get("template"))
      if (const toml::table* made = (*root_)["template"][name->value_or(std::string())].as_table()) {
        source.layers.push_back(made);
        source.made = true;
      }
    if (each == nullptr || each->as_array() == nullptr) return one(source, depth);
    source.made = true;
    for (const toml::node& entry : *each->as_array()) {
      if (entry.as_table() == nullptr) continue;
      PartSource with = source;
      with.layers.insert(with.layers.begin(), entry.as_table());
      one(with, depth);
    }
  }

  void one(const PartSource& source, int depth) {
    if (found_ != nullptr) return;
    const std::string id = source.id_before + text_in(source, "id");
    known_->push_back(id);
    if (id == *id_) {
      found_ = const_cast<toml::table*>(source.layers.front());  // of the root that is to be changed
      return;
    }
    for (const PartSource& inner : inner_sources(source, id)) {
      look(inner, depth + 1);
      const std::string own = text_in(inner, "id");
      // What an entry shares with others is said in the entry itself, under the id of what lies in it.
      if (found_ == nullptr || !source.made || found_ != inner.layers.front() ||
          source.layers.front()->get(own) != nullptr)
        continue;
      auto* outer = const_cast<toml::table*>(source.layers.front());
      outer->insert_or_assign(own, toml::table{});
      found_ = outer->get(own)->as_table();
    }
  }

  toml::table* root_;
  const std::string* id_;
  std::vector<std::string>* known_;
  toml::table* found_ = nullptr;
};

}  // namespace

const toml::node* node_at(const toml::table& table, std::string_view key) {
  const toml::table* in = &table;
  for (std::size_t dot = key.find('.'); dot != std::string_view::npos; dot = key.find('.')) {
    const toml::node* inner = in->get(key.substr(0, dot));
    if (inner == nullptr || inner->as_table() == nullptr) return nullptr;
    in = inner->as_table();
    key = key.substr(dot + 1);
  }
  return in->get(key);
}

const toml::node* PartSource::get(std::string_view key) const {
  for (const toml::table* layer : layers)
    if (const toml::node* node = node_at(*layer, key)) return node;
  return nullptr;
}

const toml::node* PartSource::setting(std::string_view key) const {
  for (const toml::table* layer : layers) {
    const toml::node* node = node_at(*layer, key);
    if (node != nullptr && node->is_table()) node = node->as_table()->get("all");
    if (node != nullptr) return node;
  }
  return nullptr;
}

std::vector<PartSource> inner_sources(const PartSource& outer, const std::string& id) {
  std::vector<PartSource> all;
  for (auto layer = outer.layers.rbegin(); layer != outer.layers.rend(); ++layer) {
    const toml::node* list = (*layer)->get("part");
    if (list == nullptr || list->as_array() == nullptr) continue;
    for (const toml::node& entry : *list->as_array()) {
      const toml::table* table = entry.as_table();
      if (table == nullptr) continue;
      PartSource source{
          .layers = {}, .id_before = outer.made ? id + "-" : std::string(), .inside = id, .made = outer.made};
      const std::string own = (*table)["id"].value_or(std::string());
      for (const toml::table* said : outer.layers)
        if (const toml::node* node = own.empty() ? nullptr : said->get(own))
          if (const toml::table* for_it = node->as_table()) source.layers.push_back(for_it);
      source.layers.push_back(table);
      all.push_back(std::move(source));
    }
  }
  return all;
}

toml::table* find_part_table(toml::table& root, const std::string& id, std::vector<std::string>& known) {
  return Search(root, id, known).find();
}

}  // namespace ubbo::io
