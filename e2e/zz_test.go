package e2e
import ("testing";"github.com/chromedp/chromedp";"github.com/chromedp/cdproto/input";"capstan/core/doc";"capstan/studio/media")
func TestZZ(t *testing.T){
	p := sit(t, startStudio(t))
	d := doc.NewProject("outl", "Outlines", 1280, 720, "s0")
	d.Film.Scenes[0].Stay = 1000
	s := doc.NewScene("s1", "Ring and dot")
	s.Transition = doc.Transition{Kind: doc.Morph, Duration: 1000, Easing: "linear"}
	d.Film.Scenes = append(d.Film.Scenes, s)
	l := func(id, kind, path string) *doc.Layer { return &doc.Layer{ID: id, Thread: "a", Name: "Sun", Kind: kind, Opacity: 1, Path: path, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 640, Y: 360, W: 300, H: 300}} }
	d.Film.Scenes[0].Layers = []*doc.Layer{l("l0", doc.Star, "")}
	two := l("l1", doc.PathKind, "M-150 -100C-150 -200 50 -200 50 -100C50 0 -150 0 -150 -100ZM-100 -100C-100 -60 0 -60 0 -100C0 -140 -100 -140 -100 -100ZM80 20L180 20L180 120L80 120Z")
	two.Place.W, two.Place.H = 0, 0
	d.Film.Scenes[1].Layers = []*doc.Layer{two}
	p.bring(d, media.NewFolder(t.TempDir()))
	p.press(`[data-scene="1"]`); p.settled()
	p.press(`[data-row] [data-name="Sun"]`); p.settled()
	p.pressWord("Scenes")
	p.pressWord("What becomes what")
	p.settled()
	p.do(chromedp.Sleep(300e6))
	p.press(`[data-mark="3a"]`)
	p.shot("b")
	x, y := p.middle(`[data-mark="3a"]`)
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, x, y, chromedp.ButtonType("left"), chromedp.ClickCount(1)))
	for i := range 6 { p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x-float64(i*6), y-float64(i*6), chromedp.ButtonType("left"))) }
	p.do(chromedp.Sleep(200e6))
	p.shot("c")
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, x-30, y-30, chromedp.ButtonType("left"), chromedp.ClickCount(1)))
	p.settled()
	p.do(chromedp.EmulateViewport(1024, 768))
	p.do(chromedp.Sleep(400e6))
	p.shot("d")
}
