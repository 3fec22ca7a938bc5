package review_test

import (
	"bytes"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/gif"
	"image/jpeg"
	"image/png"
	"math"
	"strings"
	"testing"

	"jantel/review"

	"github.com/stretchr/testify/require"
)

func drawn(w, h int) image.Image {
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for i := range w * h {
		img.Set(i%w, i/w, color.RGBA{uint8(i), uint8(i / 3), 90, 255})
	}
	return img
}

func asPNG(t testing.TB, w, h int) []byte {
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, drawn(w, h)))
	return b.Bytes()
}

// withText puts a chunk of text behind the head of a PNG.
func withText(data []byte, text string) []byte {
	const head = 8 + 25
	chunk := append([]byte("tEXtComment\x00"), text...)
	out := append([]byte{}, data[:head]...)
	out = binary.BigEndian.AppendUint32(out, uint32(len(chunk)-4))
	out = append(out, chunk...)
	out = binary.BigEndian.AppendUint32(out, crc32.ChecksumIEEE(chunk))
	return append(out, data[head:]...)
}

func TestAPictureIsDrawnAnew(t *testing.T) {
	var j, g bytes.Buffer
	require.NoError(t, jpeg.Encode(&j, drawn(20, 10), nil))
	require.NoError(t, gif.Encode(&g, drawn(20, 10), nil))
	for name, data := range map[string][]byte{
		"png":                             asPNG(t, 20, 10),
		"jpeg":                            j.Bytes(),
		"gif":                             g.Bytes(),
		"with words in it":                withText(asPNG(t, 20, 10), "where it was taken"),
		"with a page behind it":           append(asPNG(t, 20, 10), "<script>alert(1)</script>"...),
		"with the head of a camera in it": bytes.Replace(j.Bytes(), []byte{0xFF, 0xD8}, append([]byte{0xFF, 0xD8, 0xFF, 0xE1, 0, 12}, "Exif\x00\x00here"...), 1),
	} {
		t.Run(name, func(t *testing.T) {
			out, w, h, err := review.Redrawn(data)
			require.NoError(t, err)
			require.Equal(t, []int{20, 10}, []int{w, h})
			_, format, err := image.Decode(bytes.NewReader(out))
			require.NoError(t, err)
			require.Equal(t, "png", format)
			for _, left := range []string{"taken", "script", "Exif"} {
				require.NotContains(t, string(out), left)
			}
		})
	}
}

func TestWhatIsNoPictureIsRefused(t *testing.T) {
	huge := asPNG(t, 4, 4) // says that it is larger than anything
	binary.BigEndian.PutUint32(huge[16:], 100_000)
	binary.BigEndian.PutUint32(huge[20:], 100_000)
	binary.BigEndian.PutUint32(huge[29:], crc32.ChecksumIEEE(huge[12:29]))
	cut := asPNG(t, 200, 200)
	for name, c := range map[string]struct {
		data []byte
		says string
	}{
		"nothing":             {nil, "no picture"},
		"a page":              {[]byte("<svg xmlns='http://www.w3.org/2000/svg'><script/></svg>"), "no picture"},
		"a name alone":        {[]byte("\x89PNG\r\n\x1a\n"), "no picture"},
		"more pixels than it": {huge, "million pixels"},
		"half of one":         {cut[:len(cut)/2], "broken"},
		"too many bytes":      {make([]byte, review.MaxPictureBytes+1), "4 MB"},
	} {
		t.Run(name, func(t *testing.T) {
			_, _, _, err := review.Redrawn(c.data)
			require.ErrorIs(t, err, review.ErrInvalid)
			require.ErrorContains(t, err, c.says)
		})
	}
}

func TestBoxesLieInTheirPicture(t *testing.T) {
	good := review.PictureBox{X: 0.1, Y: 0.1, W: 0.5, H: 0.9, Path: "desk/src/App.tsx", Name: "App"}
	require.NoError(t, review.CheckBoxes([]review.PictureBox{good}))
	for name, change := range map[string]func(b *review.PictureBox){
		"left of it":      func(b *review.PictureBox) { b.X = -0.2 },
		"beyond it":       func(b *review.PictureBox) { b.W = 0.95 },
		"without a size":  func(b *review.PictureBox) { b.H = 0 },
		"no number":       func(b *review.PictureBox) { b.Y = math.NaN() },
		"tied to nothing": func(b *review.PictureBox) { b.Path = "" },
		"a long name":     func(b *review.PictureBox) { b.Name = strings.Repeat("a", 500) },
		"no text":         func(b *review.PictureBox) { b.Name = "\xff" },
	} {
		t.Run(name, func(t *testing.T) {
			b := good
			change(&b)
			require.ErrorIs(t, review.CheckBoxes([]review.PictureBox{b}), review.ErrInvalid)
		})
	}
	require.ErrorIs(t, review.CheckBoxes(make([]review.PictureBox, 61)), review.ErrInvalid)
}

// Whatever comes in: it is refused, or what comes out is a picture of that size.
func FuzzRedrawn(f *testing.F) {
	f.Add(asPNG(f, 3, 2))
	f.Add([]byte("GIF89a\x01\x00\x01\x00"))
	f.Add([]byte("\xff\xd8\xff\xe0"))
	f.Fuzz(func(t *testing.T, data []byte) {
		out, w, h, err := review.Redrawn(data)
		if err != nil {
			require.ErrorIs(t, err, review.ErrInvalid)
			return
		}
		img, err := png.Decode(bytes.NewReader(out))
		require.NoError(t, err)
		require.Equal(t, []int{w, h}, []int{img.Bounds().Dx(), img.Bounds().Dy()})
	})
}
