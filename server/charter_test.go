package server_test

import (
	"encoding/json"
	"net/http"
	"testing"

	"jantel/core/charter"
	"jantel/core/weave"
	"jantel/server"

	"github.com/stretchr/testify/require"
)

const layers = "# The counter, from the outside in.\nlayers:\n  - name: handlers # answer\n    holds: [handlers]\n    may: [data]\n  - name: data\n    holds: [data]\n"

func TestTheFormChangesTheTextOfACharterAndSavesNothing(t *testing.T) {
	p, base := counterAt(t)
	change := func(text string, r charter.Revision) (out server.ChangedText) {
		p.do(http.MethodPost, base+"/charter/change", server.CharterChange{Text: text, Change: r}, &out)
		return out
	}
	got := change(layers, charter.Revision{What: "layer", Index: 0, Layer: &charter.Layer{Name: "handlers", Holds: []string{"handlers"}, May: []string{}}})
	require.Empty(t, got.Faults)
	require.Equal(t, "# The counter, from the outside in.\nlayers:\n  - name: handlers # answer\n    holds: [handlers]\n  - name: data\n    holds: [data]\n", got.Text)
	require.Equal(t, []string{}, got.Charter.Layers[0].May)
	// What is tried with it shows what it forbids.
	var st server.CharterState
	p.do(http.MethodPost, base+"/charter/try", server.CharterText{Text: got.Text}, &st)
	require.Len(t, st.Breaches, 2)
	p.get(base+"/charter", &st)
	require.Equal(t, "none", st.From, "nothing is saved by a change of the form")
	got = change("layers: [", charter.Revision{What: "rings", Rings: true})
	require.Equal(t, "layers: [", got.Text)
	require.NotEmpty(t, got.Faults)
	require.Nil(t, got.Charter)
	r, _ := p.send(http.MethodPost, "/api/codebases/99/charter/change", server.CharterChange{Text: layers, Change: charter.Revision{What: "rings"}})
	require.Equal(t, http.StatusNotFound, r.StatusCode)
	r, _ = p.send(http.MethodPost, base+"/charter/change", server.CharterChange{Text: layers, Change: charter.Revision{What: "colour"}})
	require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode)
}

func TestAThresholdThatMeansNothingIsNotSaved(t *testing.T) {
	p, base := counterAt(t)
	r, text := p.send(http.MethodPut, base+"/charter", server.CharterText{Text: layers + "thresholds:\n  long-fil: 3\n"})
	require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode)
	require.Contains(t, string(text), "line 9")
	var saved server.CharterText
	p.do(http.MethodPut, base+"/charter", server.CharterText{Text: layers + "thresholds:\n  long-file: 1\n"}, &saved)
	var st server.CharterState
	p.get(base+"/charter", &st)
	require.Equal(t, map[string]float64{"long-file": 1}, st.Charter.Thresholds)
	var m server.Margin
	p.get(base+"/margin?at=data/lots.ts", &m)
	rules := map[string]bool{}
	for _, sm := range m.Smells {
		rules[sm.Rule] = true
	}
	require.False(t, rules["long-file"], "a file of one line is not over one line")
	r, _ = p.send(http.MethodPut, base+"/charter", server.CharterText{Text: layers, Version: 0})
	require.Equal(t, http.StatusPreconditionFailed, r.StatusCode, "somebody saved in the meantime")
}

func TestTheSchemaOfTheCharterIsHandedOut(t *testing.T) {
	p, _ := counterAt(t)
	r, text := p.send(http.MethodGet, "/api/charter.schema.json", nil)
	require.Equal(t, "application/schema+json", r.Header.Get("Content-Type"))
	var schema map[string]any
	require.NoError(t, json.Unmarshal(text, &schema))
	require.Contains(t, schema["properties"], "layers")
}

func TestAFolderTellsOfItsFilesWhereTheyBelong(t *testing.T) {
	p, base := counterAt(t)
	var files []server.Belonging
	p.get(base+"/belongings?at=handlers", &files)
	require.Len(t, files, 2)
	require.Equal(t, "handlers/growers.ts", files[0].Path)
	require.EqualValues(t, "handler", files[0].Role)
	require.Equal(t, "grower", files[0].Feature)
	require.Equal(t, 3, files[0].Links, "the import and the route that lead to it, and the data it asks")
	require.Zero(t, files[0].Own.Links)
	require.False(t, files[0].Elsewhere, "two ties are too few to say so")
	p.get(base+"/belongings", &files)
	require.Empty(t, files, "the root has no files of its own")
	r, _ := p.send(http.MethodGet, base+"/belongings?at=nowhere", nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

func TestTheWeaveTellsWhichFeaturesStandTogether(t *testing.T) {
	p, base := counterAt(t)
	var g weave.Grid
	p.get(base+"/weave", &g)
	require.Len(t, g.Features, 2)
	for _, f := range g.Features {
		require.Equal(t, 3, f.Files)
		require.Equal(t, 3, f.Scatter)
		require.NotEmpty(t, f.Group)
	}
	p.get(base+"/weave?at=data", &g)
	for _, f := range g.Features {
		require.Equal(t, 1, f.Scatter, "below the place alone")
	}
}
