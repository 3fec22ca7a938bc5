package review

import (
	"bytes"
	"fmt"
	"image"
	_ "image/gif"  // read
	_ "image/jpeg" // read
	"image/png"
	"time"
	"unicode/utf8"
)

// Picture is a picture of a screen that was put to a part or a route.
type Picture struct {
	ID      int64        `json:"id"`
	Path    string       `json:"path" doc:"of the file that it is about"`
	Name    string       `json:"name" doc:"of the part, or method and pattern of the route"`
	Width   int          `json:"width" doc:"in pixels"`
	Height  int          `json:"height"`
	Boxes   []PictureBox `json:"boxes"`
	Version int64        `json:"version"`
	At      time.Time    `json:"at"`
	By      Actor        `json:"by"`
}

// PictureBox is a rectangle of a picture that is tied to a part. Its place and size
// are shares of the picture, from 0 to 1.
type PictureBox struct {
	X    float64 `json:"x"`
	Y    float64 `json:"y"`
	W    float64 `json:"w"`
	H    float64 `json:"h"`
	Path string  `json:"path"`
	Name string  `json:"name"`
	Line int     `json:"line"`
}

// Bounds of a picture, as it comes in and as it is kept.
const (
	MaxPictureBytes  = 4 << 20
	maxPicturePixels = 12_000_000
	maxPictureSide   = 8000
	maxKeptBytes     = 12 << 20
	maxBoxes         = 60
	maxBoxText       = 400
)

// Redrawn reads a picture and draws it anew as PNG: what it is, its content says, not
// its name, and nothing else that came with it is kept. Its size is looked at before
// a pixel is read.
func Redrawn(data []byte) (out []byte, width, height int, err error) {
	if len(data) > MaxPictureBytes {
		return nil, 0, 0, fmt.Errorf("%w: a picture may have %d MB at most", ErrInvalid, MaxPictureBytes>>20)
	}
	head, _, err := image.DecodeConfig(bytes.NewReader(data))
	if err != nil {
		return nil, 0, 0, fmt.Errorf("%w: that is no picture in PNG, JPEG or GIF", ErrInvalid)
	}
	if head.Width < 1 || head.Height < 1 || head.Width > maxPictureSide || head.Height > maxPictureSide ||
		head.Width*head.Height > maxPicturePixels {
		return nil, 0, 0, fmt.Errorf("%w: a picture may have %d million pixels at most, and %d on a side", ErrInvalid,
			maxPicturePixels/1_000_000, maxPictureSide)
	}
	img, _, err := image.Decode(bytes.NewReader(data))
	if err != nil {
		return nil, 0, 0, fmt.Errorf("%w: the picture is broken: %w", ErrInvalid, err)
	}
	var b bytes.Buffer
	if err := (&png.Encoder{CompressionLevel: png.BestCompression}).Encode(&b, img); err != nil {
		return nil, 0, 0, err
	}
	if b.Len() > maxKeptBytes {
		return nil, 0, 0, fmt.Errorf("%w: drawn anew the picture has more than %d MB", ErrInvalid, maxKeptBytes>>20)
	}
	return b.Bytes(), img.Bounds().Dx(), img.Bounds().Dy(), nil
}

// CheckBoxes says what is wrong with the boxes of a picture, nil if nothing is.
func CheckBoxes(boxes []PictureBox) error {
	if len(boxes) > maxBoxes {
		return fmt.Errorf("%w: a picture may have %d boxes at most", ErrInvalid, maxBoxes)
	}
	const slack = 0.001
	for _, b := range boxes {
		// Written so that what is no number fails as well.
		if !(b.X >= 0 && b.Y >= 0 && b.W > 0 && b.H > 0 && b.X+b.W <= 1+slack && b.Y+b.H <= 1+slack) {
			return fmt.Errorf("%w: a box lies outside of its picture", ErrInvalid)
		}
		if b.Path == "" || len(b.Path) > maxBoxText || len(b.Name) > maxBoxText || !utf8.ValidString(b.Path+b.Name) {
			return fmt.Errorf("%w: a box is tied to a part by its path and name", ErrInvalid)
		}
	}
	return nil
}
