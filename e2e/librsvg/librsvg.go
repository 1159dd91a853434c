// Package librsvg asks librsvg, by its command, how drawings look.
package librsvg

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/draw"
	"image/png"
	"os/exec"
	"strings"
)

// Paint is a drawing as librsvg paints it, in the middle of a square of so many px, over white; nil where it cannot.
func Paint(ctx context.Context, text string, side int) *image.RGBA {
	cmd := exec.CommandContext(ctx, "rsvg-convert", "-w", fmt.Sprint(side), "-h", fmt.Sprint(side), "-a", "-b", "white")
	cmd.Stdin = strings.NewReader(text)
	raw, err := cmd.Output()
	if err != nil {
		return nil
	}
	m, err := png.Decode(bytes.NewReader(raw))
	if err != nil {
		return nil
	}
	out := image.NewRGBA(image.Rect(0, 0, side, side))
	draw.Draw(out, out.Rect, image.White, image.Point{}, draw.Src)
	b := m.Bounds()
	draw.Draw(out, b.Sub(b.Min).Add(image.Pt((side-b.Dx())/2, (side-b.Dy())/2)), m, b.Min, draw.Over)
	return out
}
