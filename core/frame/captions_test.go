package frame_test

import (
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
)

// What voices say is drawn over the film while it is said, in the colours of the scene where these are roles, at the side that is asked for, also in a transition; and
// is nothing that the pointer meets, nor there at rest.
func TestCaptionsAreDrawnWhileTheyAreSaid(t *testing.T) {
	p := doc.NewProject("p", "Film", 640, 360, "s0")
	p.Media = map[string]*doc.Media{strings.Repeat("a", 64): {Name: "v", Type: "audio/wav", Samples: 480000, Channels: 1}}
	sc := p.Film.Scenes[0]
	sc.Roles = map[string]string{"words": "#ffeedd", "ground": "#112233"}
	second := doc.NewScene("s1", "Second")
	second.Transition = doc.Transition{Kind: doc.Crossfade, Duration: 1000}
	p.Film.Scenes = append(p.Film.Scenes, second)
	sc.Sounds = []*doc.Sound{{ID: "q", Name: "Voice", Media: strings.Repeat("a", 64), Use: doc.Voice, Start: doc.Start{When: doc.AtTime, Offset: 1000}, Length: 5000, Spoken: &doc.Spoken{
		Text: "x", Voice: "en", Lines: []doc.Caption{{From: 0, To: 800, Text: "Kites up at ten"}, {From: 3200, To: 4200, Text: "Bring a long tail"}}}}}
	plain := compiled(t, p).Player()
	p.Film.Captions = &doc.Captioned{}
	shown := compiled(t, p).Player()
	codes := func(p *frame.Player, ms int64) int { return len(p.At(motion.Millis(ms), frame.View{Scale: 1}).Codes) }
	for ms, said := range map[int64]bool{0: false, 999: false, 1000: true, 1799: true, 1800: false, 4199: false, 4200: true, 4900: true, 5199: true, 5200: false, 8999: false} {
		if more := codes(shown, ms) > codes(plain, ms); more != said {
			t.Errorf("at %d ms a caption is drawn: %v", ms, more)
		}
	}
	shown.At(motion.Millis(1200), frame.View{Scale: 1})
	for y := 5.0; y < 360; y += 10 {
		if hits := shown.HitAll(geom.Point{X: 320, Y: y}, 0); len(hits) > 0 {
			t.Fatalf("the pointer meets %v", hits)
		}
	}
	if a, b := len(shown.AtRest(0, frame.View{Scale: 1}).Codes), len(plain.AtRest(0, frame.View{Scale: 1}).Codes); a != b {
		t.Error("at rest a caption is drawn")
	}
	if n := testing.AllocsPerRun(50, func() { shown.At(motion.Millis(1200), frame.View{Scale: 1}) }); n > 0 {
		t.Errorf("a frame with a caption allocates %v times", n)
	}
}
