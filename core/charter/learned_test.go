package charter_test

import (
	"strings"
	"testing"

	"jantel/core/charter"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

const rings = `
-- Core/Core.csproj --
<Project Sdk="Microsoft.NET.Sdk"></Project>
-- Core/Ports.cs --
namespace Vault.Core;
public interface ILotStore { void Keep(Lot lot); }
-- Core/Scale.cs --
namespace Vault.Core;
public interface IScale { int Weigh(); }
-- Core/Lot.cs --
namespace Vault.Core;
public class Lot { public int Grams; }
-- Work/Work.csproj --
<Project Sdk="Microsoft.NET.Sdk"><ItemGroup><ProjectReference Include="../Core/Core.csproj" /></ItemGroup></Project>
-- Work/TakeLot.cs --
using Vault.Core;
namespace Vault.Work;
public class TakeLot { private readonly ILotStore _store; public void Run(Lot lot) { _store.Keep(lot); } }
-- Store/Store.csproj --
<Project Sdk="Microsoft.NET.Sdk"><ItemGroup><ProjectReference Include="../Core/Core.csproj" /></ItemGroup></Project>
-- Store/SqlLots.cs --
using Vault.Core;
namespace Vault.Store;
public class SqlLots : ILotStore { public void Keep(Lot lot) { } }
-- Store/BenchScale.cs --
using Vault.Core;
namespace Vault.Store;
public class BenchScale : IScale { public int Weigh() { return 1; } }
-- Web/Web.csproj --
<Project Sdk="Microsoft.NET.Sdk.Web"><ItemGroup><ProjectReference Include="../Work/Work.csproj" /><ProjectReference Include="../Store/Store.csproj" /></ItemGroup></Project>
-- Web/Program.cs --
using Vault.Work;
using Vault.Store;
namespace Vault.Web;
public class Program { public static void Main() { new TakeLot(); new SqlLots(); } }
`

func derived(t *testing.T, tree string) (*charter.Charter, *judgement.Result, *model.Survey) {
	t.Helper()
	s := testkit.Survey(t, tree)
	j := judgement.Judge(s, model.Brief{}, nil)
	return charter.Derive(s, j.Judgement), j, s
}

func TestRingsAreLearnedFromWhoImplementsWhoseInterfaces(t *testing.T) {
	c, _, _ := derived(t, rings)
	require.True(t, c.Rings)
	got := map[string][]string{}
	var order []string
	for _, l := range c.Layers {
		got[l.Name] = l.Holds
		order = append(order, l.Name)
	}
	require.Equal(t, []string{"outermost", "adapters", "application", "core"}, order)
	require.Equal(t, map[string][]string{
		"outermost": {"Web/**"}, "adapters": {"Store/**"}, "application": {"Work/**"}, "core": {"Core/**"},
	}, got)
	text, err := c.Text()
	require.NoError(t, err)
	_, faults := charter.Parse([]byte(text))
	require.Empty(t, faults, "what is derived is a charter")
}

func TestWhatIsLearnedBlessesNoWayOutwards(t *testing.T) {
	// What works with the core names the store it is kept in: that goes outwards, and
	// stays a breach, though the code does it.
	tree := strings.Replace(rings, "public void Run(Lot lot) {", "public void Run(Lot lot) { new SqlLots();", 1)
	tree = strings.Replace(tree, "using Vault.Core;\nnamespace Vault.Work;", "using Vault.Core;\nusing Vault.Store;\nnamespace Vault.Work;", 1)
	tree = strings.Replace(tree, `<ItemGroup><ProjectReference Include="../Core/Core.csproj" /></ItemGroup></Project>
-- Work/TakeLot.cs --`, `<ItemGroup><ProjectReference Include="../Core/Core.csproj" /><ProjectReference Include="../Store/Store.csproj" /></ItemGroup></Project>
-- Work/TakeLot.cs --`, 1)
	c, j, s := derived(t, tree)
	require.True(t, c.Rings)
	for _, l := range c.Layers {
		if l.Name == "core" {
			require.Empty(t, l.May)
		}
	}
	text, err := c.Text()
	require.NoError(t, err)
	read, faults := charter.Parse([]byte(text))
	require.Empty(t, faults)
	var out []string
	for _, b := range read.Hold(j.Reading, s.SurveyedAt).Breaches {
		out = append(out, b.LayerFrom+" to "+b.LayerTo)
	}
	require.Contains(t, out, "application to adapters")
}

func TestOneInterfaceIsNoDirection(t *testing.T) {
	tree := strings.Replace(rings, "public class BenchScale : IScale {", "public class BenchScale {", 1)
	c, _, _ := derived(t, tree)
	require.False(t, c.Rings, "told by levels instead")
	require.NotEmpty(t, c.Layers)
}
