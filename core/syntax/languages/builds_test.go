package languages_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/model"

	"github.com/stretchr/testify/require"
)

func TestWhatABuildSaysItMakes(t *testing.T) {
	for _, x := range []struct{ what, file, text, want string }{
		{"Automake's programs and libraries", "Makefile.am", `
# bin_PROGRAMS = gone
bin_PROGRAMS = lots \
  bids
lib_LTLIBRARIES = libhammer.la
libhammer_la_SOURCES = a.c
`, "3 program lots, 3 program bids, 5 library libhammer"},
		{"what is a part of something else, or there to check it", "Makefile.am", `
noinst_LTLIBRARIES = libinner.la
noinst_PROGRAMS = show
check_PROGRAMS = lots_test
EXTRA_PROGRAMS = more
`, ""},
		{"modules, by their flags and by where they are put", "Makefile.am", `
lib_LTLIBRARIES = mod-wood.la
mod_wood_la_LDFLAGS = -module -avoid-version
pkglib_LTLIBRARIES = glass.la
saledir_LTLIBRARIES = clay.la
usrlib_LTLIBRARIES = libroot.la
libarch_LTLIBRARIES = libstone.la
`, "2 plug-in mod-wood, 4 plug-in glass, 5 plug-in clay, 6 library libroot, 7 library libstone"},
		{"names in a variable of the file", "Makefile.am", `
TOOLS = weigh count
bin_PROGRAMS = $(TOOLS) $(MORE)
sbin_PROGRAMS += sold
`, "3 program weigh, 3 program count, 4 program sold"},
		{"rules for libraries that are put in their place", "Makefile.in", `
all: libhammer.a libhammer.so.1.2 hammer
libhammer.a: a.o b.o
	$(AR) libhammer.a a.o b.o
libhammer.so.1.2:	a.o
install: all
	$(INSTALL) hammer.h $(includedir)
`, "3 library libhammer"},
		{"a library of which nothing is put anywhere", "Makefile", `
libhammer.a: a.o
	ar r libhammer.a a.o
clean:
	rm -f libhammer.a
`, ""},
		{"a variable that is no rule", "Makefile.in", `
libhammer.a := x
install:
	cp h $(libdir)
`, ""},
		{"CMake's targets that are installed", "CMakeLists.txt", `
project(hammer C) # the sale
set(LIB hammer_core)
add_library(${LIB} STATIC a.c)
add_library(inner b.c)
add_library(lots::core ALIAS ${LIB})
add_executable(${PROJECT_NAME}
   main.c)
add_library(wood MODULE wood.c)
install(TARGETS ${LIB} EXPORT x
  LIBRARY DESTINATION lib)
#add_executable(gone x.c)
`, "4 library hammer_core, 7 program hammer, 9 plug-in wood"},
		{"Meson's targets that are installed", "meson.build", `
dep = cc.find_library('m')
libhammer = library('hammer', ['a.c'],
  include_directories : inc(x),
  install : true)
static_library('inner', 'b.c')
executable('lots', 'main.c', install : true)
executable('lots-test', 't.c')
shared_module('wood', 'w.c', install: get_option('wood'))
`, "3 library hammer, 7 program lots, 9 plug-in wood"},
		{"what is there to link with", "hammer.pc.in", `
prefix=@prefix@
Name: hammer
Libs: -L${libdir} -lhammer
`, "4 library libhammer"},
		{"headers alone", "shell.pc.in", "Name: shell\nCflags: -I${includedir}\n", ""},
	} {
		var got []string
		for _, b := range facts(x.file, x.text).Project.Builds {
			got = append(got, fmt.Sprint(b.Line, " ", b.Kind, " ", b.Name))
		}
		require.Equal(t, x.want, strings.Join(got, ", "), x.what)
	}
}

func TestABuildThatMakesMuchIsBounded(t *testing.T) {
	var b strings.Builder
	for i := range 2000 {
		fmt.Fprintf(&b, "executable('lot%d', install : true)\n", i)
	}
	require.Len(t, facts("meson.build", b.String()).Project.Builds, 500)
	require.Equal(t, model.ReadFull, facts("meson.build", b.String()).Read)
}
