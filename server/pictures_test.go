package server_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/png"
	"net/http"
	"sync"
	"testing"

	"jantel/core/testkit"
	"jantel/review"
	"jantel/server"

	"github.com/stretchr/testify/require"
)

func TestPicturesArePutToPartsAndTheirBoxesTied(t *testing.T) {
	dir := testkit.Tree(t, system)
	p := start(t, dir)
	id := p.takeIn(dir)
	base := fmt.Sprintf("/api/codebases/%d/pictures", id)
	of := base + "?at=src/app.ts&name=App"
	var shot bytes.Buffer
	require.NoError(t, png.Encode(&shot, image.NewGray(image.Rect(0, 0, 30, 20))))

	r, answer := p.raw(http.MethodPost, of+"&by=ida", "application/octet-stream", shot.Bytes())
	require.Equal(t, http.StatusOK, r.StatusCode, string(answer))
	var one review.Picture
	require.NoError(t, json.Unmarshal(answer, &one))
	require.Equal(t, []int{30, 20}, []int{one.Width, one.Height})
	r, _ = p.raw(http.MethodPost, of, "application/octet-stream", []byte("<html>"))
	require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode)
	r, _ = p.raw(http.MethodPost, of, "application/octet-stream", make([]byte, review.MaxPictureBytes+10))
	require.Equal(t, http.StatusRequestEntityTooLarge, r.StatusCode)

	r, answer = p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/picture/%d.png", id, one.ID), nil)
	require.Equal(t, "image/png", r.Header.Get("Content-Type"))
	require.Equal(t, "nosniff", r.Header.Get("X-Content-Type-Options"))
	_, err := png.Decode(bytes.NewReader(answer))
	require.NoError(t, err)
	r, _ = p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/picture/99.png", id), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)

	put := func(c server.PictureChange) int {
		r, _ := p.send(http.MethodPut, fmt.Sprintf("%s/%d", base, one.ID), c)
		return r.StatusCode
	}
	box := review.PictureBox{X: 0.2, Y: 0.2, W: 0.3, H: 0.3, Path: "src/lots.ts", Name: "lots.ts"}
	require.Equal(t, http.StatusOK, put(server.PictureChange{Boxes: []review.PictureBox{box}, Version: 1, By: "ida"}))
	require.Equal(t, http.StatusPreconditionFailed, put(server.PictureChange{Boxes: []review.PictureBox{}, Version: 1}), "somebody else was first")
	box.W = 2
	require.Equal(t, http.StatusUnprocessableEntity, put(server.PictureChange{Boxes: []review.PictureBox{box}, Version: 2}))
	r, _ = p.send(http.MethodPut, base+"/99", server.PictureChange{Boxes: []review.PictureBox{}, Version: 1})
	require.Equal(t, http.StatusNotFound, r.StatusCode)

	list := func() []review.Picture {
		var all server.PicturesOf
		p.get(of, &all)
		return all.Pictures
	}
	require.Equal(t, "lots.ts", list()[0].Boxes[0].Name)
	kept := list()[0].Boxes
	require.Equal(t, http.StatusOK, put(server.PictureChange{Boxes: kept, Version: 2, Gone: true}))
	require.Empty(t, list())
	r, _ = p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/picture/%d.png", id, one.ID), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
	require.Equal(t, http.StatusOK, put(server.PictureChange{Boxes: kept, Version: 3}), "it is taken back")
	require.Len(t, list(), 1)

	// Of several who save at once, one does.
	var wg sync.WaitGroup
	codes := make([]int, 6)
	for i := range codes {
		wg.Go(func() { codes[i] = put(server.PictureChange{Boxes: kept, Version: 4}) })
	}
	wg.Wait()
	saved := 0
	for _, c := range codes {
		if c == http.StatusOK {
			saved++
		}
	}
	require.Equal(t, 1, saved)
}
