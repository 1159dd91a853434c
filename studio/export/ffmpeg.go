package export

import (
	"bytes"
	"os/exec"
	"strings"
	"sync"
)

// able holds the paths of programs that have been found to make video: they are not asked again.
var able sync.Map

// Video returns why this machine cannot make video, as a *Failed in words, or nil.
func Video() error {
	path, err := exec.LookPath("ffmpeg")
	if _, known := able.Load(path); err == nil && known {
		return nil
	}
	out, err := exec.Command("ffmpeg", "-hide_banner", "-encoders").Output()
	switch {
	case err != nil:
		return &Failed{Words: "Video needs ffmpeg, which is not on this machine or cannot be started. Install it, or export a GIF or a still."}
	case !bytes.Contains(out, []byte(" libx264 ")):
		return &Failed{Words: "The ffmpeg on this machine has no x264, which MP4 needs. Install a full one, or export a GIF or a still."}
	}
	able.Store(path, true)
	return nil
}

// translated says what ffmpeg's last words mean.
func translated(words string) string {
	const kept = " Nothing was written, the project is as it was."
	for _, m := range [][2]string{
		{"No space left", "The disk is full." + kept + " Make room and try again."},
		{"Permission deni", "The folder for exports cannot be written to." + kept},
		{"Unknown encoder", "The ffmpeg on this machine has no x264, which MP4 needs." + kept},
		{"Cannot allocate", "There was not enough memory for a video of this size." + kept + " Choose a smaller one."},
		{"signal: killed", "ffmpeg was ended from outside." + kept + " Try again."},
		{"broken pipe", "ffmpeg ended before the film did." + kept + " Try again."},
		{"Invalid argument", "ffmpeg does not take this size or rate." + kept + " Choose another."},
	} {
		if strings.Contains(words, m[0]) {
			return m[1]
		}
	}
	return "The video could not be made." + kept
}
