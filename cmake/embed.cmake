# cmake -DOUT=FILE -DFILES=a;b -DROOT=DIR -P embed.cmake: a C++ source that holds the files' texts.
set(entries "")
foreach(file IN LISTS FILES)
  file(READ ${ROOT}/${file} text)
  get_filename_component(name ${file} NAME)
  string(APPEND entries "    {\"${name}\", R\"embedded(${text})embedded\"},\n")
endforeach()
file(WRITE ${OUT}.new "#include \"demo_files.hpp\"\n\nnamespace ubbo::demo {\n
std::span<const File> files() {\n  static constexpr File all[] = {\n${entries}  };\n  return all;\n}\n
}  // namespace ubbo::demo\n")
file(COPY_FILE ${OUT}.new ${OUT} ONLY_IF_DIFFERENT)
