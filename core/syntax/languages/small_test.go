package languages_test

import (
	"strings"
	"testing"

	"jantel/core/model"

	"github.com/stretchr/testify/require"
)

// small runs many one-file samples written one below the other:
//
//	== what the sample is about [ in name.ext]
//	the code
//	=> the definitions, parted by "; "
//	<- the imports, parted by "; "
//
// Line numbers count from the line below "==". Both result lines may be left
// out, which means that nothing may be found.
func small(t *testing.T, file, text string) {
	blocks := strings.Split("\n"+text, "\n== ")
	require.Empty(t, strings.TrimSpace(blocks[0]))
	for _, block := range blocks[1:] {
		name, rest, _ := strings.Cut(block, "\n")
		in := file
		if a, b, ok := strings.Cut(name, " in "); ok && strings.Contains(b, ".") && !strings.Contains(b, " ") {
			name, in = a, b
		}
		var code strings.Builder
		var defs, imports []string
		for _, line := range strings.Split(strings.TrimSuffix(rest, "\n"), "\n") {
			switch {
			case strings.HasPrefix(line, "=> "):
				defs = append(defs, strings.Split(line[3:], "; ")...)
			case strings.HasPrefix(line, "<- "):
				imports = append(imports, strings.Split(line[3:], "; ")...)
			default:
				code.WriteString(line + "\n")
			}
		}
		t.Run(name, func(t *testing.T) {
			f := facts(in, code.String())
			gotDefs, gotImports := told(f)
			for i := range gotImports {
				gotImports[i] = strings.TrimSuffix(gotImports[i], ": ")
			}
			require.Equal(t, defs, gotDefs)
			require.Equal(t, imports, gotImports)
			require.NotEqual(t, model.ReadPartial, f.Read, f.Problem)
		})
	}
}
