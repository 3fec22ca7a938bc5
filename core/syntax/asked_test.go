package syntax

import (
	"bytes"
	"math/rand/v2"
	"strings"
	"testing"

	"jantel/core/model"

	"github.com/stretchr/testify/require"
)

// A page is looked at around what leads to a name alone: what is found is what is found
// in all of it.
func TestWhatAPageAsksForIsFoundAroundItsLeads(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 11))
	lots := []string{"{{ t('lots.title') }}", "{% url 'lots' %}", "#{hint.text}", "url_for( 'a.b')", "{{ \"open\" | translate }}", "path(", "<p>", "_('x')"}
	for range 40 {
		var b strings.Builder
		for range 60 {
			b.WriteString(lots[r.IntN(len(lots))])
			b.WriteString(strings.Repeat("wood and glass ", r.IntN(90)))
			if r.IntN(3) == 0 {
				b.WriteByte('\n')
			}
		}
		text := []byte(b.String())
		var want []string
		for i := range inPages {
			for _, m := range inPages[i].re.FindAllSubmatchIndex(text, -1) {
				g := 2
				if m[2] < 0 {
					g = 4
				}
				if name := string(text[m[g]:m[g+1]]); len(name) <= 300 && !strings.ContainsAny(name, "<>") {
					want = append(want, inPages[i].kind+" "+name)
				}
			}
		}
		var got []string
		for _, a := range AskedInPage(text, func(int) int { return 1 }) {
			got = append(got, a.Kind+" "+a.Name)
		}
		require.Equal(t, want, got)
	}
}

func TestPiecesLieAroundLeadsAndNeverOverlap(t *testing.T) {
	text := bytes.Repeat([]byte("."), 5000)
	copy(text[1000:], "t(")
	copy(text[1300:], "_(")
	copy(text[4000:], "t(")
	var got [][2]int
	for start, end := range pieces(text, []string{"t(", "_("}) {
		got = append(got, [2]int{start, end})
	}
	require.Equal(t, [][2]int{{940, 2000}, {3940, 4700}}, got)
	for range pieces(text, []string{"nowhere"}) {
		t.Fatal("there is none")
	}
}

func TestWordsThatAreAskedForAreNeverLeftOut(t *testing.T) {
	for _, set := range []map[string]bool{raisers, raiseCalls, catchers, caseWords} {
		for w := range set {
			b := NewBuilder([]byte(w))
			b.Pos = len(w)
			b.Add(Ident, 0, 1)
			s := b.Finish()
			s.tell()
			require.Len(t, s.telling, 1, w)
		}
	}
	b := NewBuilder([]byte("Carp::croak"))
	b.Pos = 11
	b.Add(Ident, 0, 1)
	s := b.Finish()
	s.tell()
	met := 0
	s.tells(asksFaults, func(int) { met++ })
	require.Equal(t, 1, met)
	f := &model.Facts{}
	faults(f, s)
	require.Empty(t, f.Faults, "nothing stands behind it that is raised")
}
