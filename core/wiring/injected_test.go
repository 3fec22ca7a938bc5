package wiring_test

import (
	"fmt"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"
	"jantel/core/wiring"

	"github.com/stretchr/testify/require"
)

func TestWhoGetsWhatHanded(t *testing.T) {
	s := testkit.Survey(t, `
-- Program.cs --
var b = WebApplication.CreateBuilder(args);
b.Services.AddScoped<IShelves, Shelves>();
b.Services.AddSingleton<ICards, FileCards>();
b.Services.AddTransient<ICards, SheetCards>();
b.Services.AddScoped<Day>();
-- Parts.cs --
public interface IShelves { int Count(); }
public interface ICards { int Read(); }
public class Shelves : IShelves { public int Count() { return 1; } }
public class FileCards : ICards { public int Read() { return 1; } }
public class SheetCards : ICards { public int Read() { return 2; } }
-- Day.cs --
public class Day
{
    private readonly IShelves _shelves;
    private readonly ICards _cards;
    public Day(IShelves shelves, ICards cards) { _shelves = shelves; _cards = cards; }
}
`)
	j := judgement.Judge(s, model.Brief{}, nil)
	var got []string
	for _, e := range wiring.Edges(j.Reading, func(string) string { return "." }) {
		got = append(got, fmt.Sprintf("%s:%d %s -> %s %s %v", e.From.Path, e.Line, e.From.Name, e.To.Path, e.To.Name, e.Sure))
	}
	require.Equal(t, []string{
		"Day.cs:1 Day -> Parts.cs FileCards false",
		"Day.cs:1 Day -> Parts.cs SheetCards false",
		"Day.cs:1 Day -> Parts.cs Shelves true",
	}, got)
	plain := testkit.Survey(t, "-- a.go --\npackage a\n")
	require.Empty(t, wiring.Edges(judgement.Judge(plain, model.Brief{}, nil).Reading, func(string) string { return "." }))
}
