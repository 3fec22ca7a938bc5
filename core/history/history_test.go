package history_test

import (
	"context"
	"strings"
	"testing"

	"jantel/core/history"
	"jantel/core/model"
	"jantel/core/source"
	"jantel/core/survey"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// of surveys a repository and returns its history.
func of(t *testing.T, dir, rev string) *model.History {
	t.Helper()
	src, err := source.Open(context.Background(), source.Request{Path: dir, Revision: rev})
	require.NoError(t, err)
	defer func() { require.NoError(t, src.Close()) }()
	s, err := survey.Run(context.Background(), src, survey.Options{Name: "vault"})
	require.NoError(t, err)
	return s.History
}

const lots = "export const lot = 1\nexport const weight = 2\nexport const moisture = 3\nexport const origin = 4\n"

func TestWhatGitTellsFollowsRenamesAndSeesWhatChangesTogether(t *testing.T) {
	dir := testkit.Repository(t, "-- desk/lots.ts --\n"+lots+"-- desk/lots.css --\na {}\n-- bench/run.py --\nx = 1\n")
	commit := func(msg string, args ...string) {
		t.Helper()
		testkit.Git(t, dir, append([]string{"add", "-A"}, args...)...)
		testkit.Git(t, dir, "commit", "-q", "-m", msg)
	}
	for _, n := range []string{"5", "6", "7"} {
		testkit.Write(t, dir, "-- desk/lots.ts --\n"+lots+"export const n = "+n+"\n")
		testkit.Write(t, dir, "-- desk/lots.css --\n"+"a { order: "+n+" }\n")
		commit("Change both to " + n)
	}
	testkit.Git(t, dir, "mv", "desk/lots.ts", "desk/accessions.ts")
	commit("Call it accessions")
	testkit.Write(t, dir, "-- bench/run.py --\n"+"x = 2\n")
	testkit.Git(t, dir, "-c", "user.name=Odd \xff Fennimore", "add", "-A")
	testkit.Git(t, dir, "commit", "-q", "-m", "Run twice", "--author", "Odd Fennimore <odd@hollin-moor.example>")
	testkit.Git(t, dir, "checkout", "-q", "-b", "side", "HEAD~1")
	testkit.Write(t, dir, "-- side.txt --\n"+"side\n")
	commit("Aside")
	testkit.Git(t, dir, "checkout", "-q", "main")
	testkit.Git(t, dir, "merge", "-q", "--no-ff", "-m", "Bring it in", "side")

	for name, rev := range map[string]string{"at a revision": "main", "of a folder as it stands": ""} {
		t.Run(name, func(t *testing.T) {
			h := of(t, dir, rev)
			require.NotNil(t, h)
			require.Equal(t, 8, h.Commits)
			require.Len(t, h.Authors, 2)
			require.Equal(t, "Maren", h.Authors[0].Name)
			f := h.File("desk/accessions.ts")
			require.NotNil(t, f)
			require.Equal(t, 5, f.Changes, "what was done under the old name counts")
			require.Nil(t, h.File("desk/lots.ts"), "a name that is gone has no file")
			require.Equal(t, map[string]int{"Maren": 1, "Odd Fennimore": 1}, h.File("bench/run.py").Authors)
			require.Equal(t, []model.Pair{{A: "desk/accessions.ts", B: "desk/lots.css", Together: 4, Confidence: 1}}, h.Pairs)
			require.Equal(t, 1.0, *h.MedianFolders)
		})
	}
}

func TestAShallowCloneSaysSo(t *testing.T) {
	dir := testkit.Repository(t, "-- a.ts --\n"+lots)
	testkit.Write(t, dir, "-- a.ts --\n"+lots+"// more\n")
	testkit.Git(t, dir, "commit", "-qam", "more")
	to := t.TempDir()
	testkit.Git(t, dir, "clone", "-q", "--depth", "1", "file://"+dir, to)
	s := testkit.SurveyDir(t, to)
	require.Nil(t, s.History, "one commit is no history")
	require.Contains(t, s.Notes, model.Note{Path: ".", Text: "the repository is a shallow clone: older commits are missing"})
	testkit.Git(t, dir, "commit", "-q", "--allow-empty", "-m", "still more")
	deeper := t.TempDir()
	testkit.Git(t, dir, "clone", "-q", "--depth", "2", "file://"+dir, deeper)
	require.Contains(t, of(t, deeper, "HEAD").Cut, "shallow")
}

func TestWithoutGitThereIsNone(t *testing.T) {
	require.Nil(t, of(t, testkit.Tree(t, "-- a.ts --\n"), ""))
}

func TestALogThatIsNoneIsRefused(t *testing.T) {
	every := func(string) bool { return true }
	same := func(s string) string { return s }
	for name, log := range map[string]string{"words": "fatal: no\x00", "a status without a commit": "M\x00a.go\x00", "a header cut short": "\x01abc\x02\x00", "a rename cut short": "\x01a\x02\x021\x02m\x02n\x00R100\x00a\x00"} {
		t.Run(name, func(t *testing.T) {
			_, err := history.Read(strings.NewReader(log), same, every)
			require.Error(t, err)
		})
	}
}

func FuzzLog(f *testing.F) {
	f.Add("\x01a\x02b c\x021780000000\x02m@x\x02Maren\x00\nR100\x00a.go\x00b.go\x00M\x00c.go\x00\x01d\x02\x0217\x02\x02Odd\x00A\x00a.go\x00")
	f.Fuzz(func(t *testing.T, log string) {
		h, err := history.Read(strings.NewReader(log), func(s string) string { return s }, func(string) bool { return true })
		if err != nil {
			return
		}
		for _, x := range h.Files {
			require.Positive(t, x.Changes)
			require.LessOrEqual(t, x.Changes, h.Commits)
		}
		for _, p := range h.Pairs {
			require.Less(t, p.A, p.B)
			require.True(t, p.Confidence > 0 && p.Confidence <= 1)
		}
	})
}
