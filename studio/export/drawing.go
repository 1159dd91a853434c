package export

import (
	"context"

	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/vector"
	"capstan/core/words"
)

// Sketch says what of a film becomes one drawing in SVG.
type Sketch struct {
	Scene   int
	At      *int64   // ms of the film; nil: the scene at rest
	Threads []string // only these, on nothing, as large as they show; none: the whole page
	Words   bool     // texts as words, not as outlines
}

// Drawing is a moment of a film, or some layers of it, as a drawing in SVG.
func Drawing(ctx context.Context, f *frame.Film, pictures raster.Pictures, of Sketch) (made string, err error) {
	var layers []frame.Stretch
	view := frame.View{Scale: MergedScale, Layers: &layers}
	p := f.Player()
	if len(of.Threads) > 0 {
		p.Solo(of.Threads)
		view.Bare = true
	}
	err = guarded(func() error {
		var list *frame.List
		if of.At != nil {
			list = p.At(motion.Millis(*of.At), view)
		} else {
			list = p.AtRest(of.Scene, view)
		}
		page := geom.Box{Max: geom.Point{X: float64(f.Doc.Film.Width), Y: float64(f.Doc.Film.Height)}}
		box := page
		if view.Bare {
			// What lies far outside of the page is nothing that anybody looks for.
			if box = list.Reach.Intersect(page.Grow(max(page.W(), page.H()))); box.Empty() {
				return words.New("drawing.unseen")
			}
		}
		made, err = vector.Still(f, list, layers, vector.StillOptions{
			Box: box, Words: of.Words, Title: f.Doc.Film.Scenes[of.Scene].Name, Pictures: pictures, Image: addresses(pictures, jpegQuality), PNG: pngAddress, MostBytes: mostPiece, Stop: ctx.Err,
		})
		return err
	})
	return made, err
}
