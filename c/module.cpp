// The module of the page has no program of its own: it is called.
#include "ubbo/ubbo.h"
