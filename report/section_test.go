package report

import (
	"encoding/xml"
	"io"
	"os"
	"regexp"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/section"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func TestRolesAreDrawnAsTheInterfaceDrawsThem(t *testing.T) {
	src, err := os.ReadFile("../web/src/theme/roles.ts")
	require.NoError(t, err)
	var names, drawn []string
	for _, m := range regexp.MustCompile(`(?m)^  '(\w+ \w+)', // (.+)$`).FindAllStringSubmatch(string(src), -1) {
		drawn, names = append(drawn, m[1]), append(names, m[2])
	}
	var roles []string
	for _, r := range model.Roles {
		roles = append(roles, string(r))
	}
	require.Equal(t, roles, names)
	require.Equal(t, looks, drawn)
	for _, look := range looks {
		hue, _, _ := strings.Cut(look, " ")
		system, err := os.ReadFile("../web/src/theme/system.ts")
		require.NoError(t, err)
		require.Contains(t, string(system), hue+": pair('"+hues[hue], "the hue on paper")
	}
}

func TestASectionIsAPictureWhateverNamesItMeets(t *testing.T) {
	s := testkit.Survey(t, "-- a<b&\"c/x.ts --\nimport '../d]]>e/y'\nfetch('https://<script>.example/')\n-- d]]>e/y.ts --\nexport const a = 1\n-- d]]>e/y.test.ts --\ntest('a', () => {})\n")
	var b strings.Builder
	require.NoError(t, Section(&b, section.Of(s, judgement.Judge(s, model.Brief{}, nil), "."), "<b>&", "\x1b[31m"))
	d := xml.NewDecoder(strings.NewReader(b.String()))
	for {
		token, err := d.Token()
		if err == io.EOF {
			break
		}
		require.NoError(t, err)
		if e, ok := token.(xml.StartElement); ok {
			require.Contains(t, []string{"svg", "rect", "defs", "pattern", "circle", "text", "g", "title", "line", "path"}, e.Name.Local)
		}
	}
	require.NotContains(t, b.String(), "\x1b")
}
