package effect

// Light is how bands of light move: how they come, and what they go on with, by this many degrees to either side.
var Light = struct {
	Comes, Goes string
	Params      Params
}{Fade, Rock, Params{"angle": 5.0}}
