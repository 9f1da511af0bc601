#include "ubbo/tool/run.hpp"

int main(int argc, char** argv) { return ubbo::tool::run(argc, argv); }
