# cmake -DOUT=FILE -DFILES=a;b -DROOT=DIR -P embed.cmake: a C++ source that holds the files' texts.
set(entries "")
foreach(file IN LISTS FILES)
  file(READ ${ROOT}/${file} text)
  get_filename_component(name ${file} NAME)
  string(APPEND entries "    {\"${name}\", R\"embedded(${text})embedded\"},\n")
endforeach()
file(WRITE ${OUT}.new "#include \"demo_files.hpp\"\n\nnamespace ubbo::tool {\n
std::span<const DemoFile> demo_files() {\n  static constexpr DemoFile files[] = {\n${entries}  };\n  return files;\n}\n
}  // namespace ubbo::tool\n")
file(COPY_FILE ${OUT}.new ${OUT} ONLY_IF_DIFFERENT)
