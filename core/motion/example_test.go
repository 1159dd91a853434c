package motion_test

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/motion"
)

// A fade hangs on the end of a path; Resolve says when both happen.
func ExampleResolve() {
	s := doc.NewScene("first", "First")
	s.AutoStay = true
	s.Layers = []*doc.Layer{{ID: "gull", Thread: "gull", Kind: doc.Ellipse, Opacity: 1, Moves: []*doc.Move{
		{ID: "flight", Kind: doc.MotionPath, Effect: doc.Along, Duration: 3000, Start: doc.Start{When: doc.AtTime, Offset: 500}, Path: &doc.PathParams{D: "M0 0L900 -300"}},
		{ID: "away", Kind: doc.Exit, Effect: effect.Fade, Duration: 400, Start: doc.Start{When: doc.WhenEnds, Of: "flight", Offset: -400}},
	}}}
	t, err := motion.Resolve(s, 0)
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Println(t.Moves["flight"].Begin, t.Moves["flight"].End)
	fmt.Println(t.Moves["away"].Begin, t.Moves["away"].End, "stay", t.Stay)
	// Output:
	// 500 3500
	// 3100 3500 stay 3500
}

// Frames are counted with exact fractions: NTSC's 30000/1001 a second makes 300 of 10.01 s.
func ExampleFrames() {
	fmt.Println(motion.Frames(10010, 30000, 1001), motion.FrameTime(300, 30000, 1001))
	// Output: 300 {10010 1}
}
