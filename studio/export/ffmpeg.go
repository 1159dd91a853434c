package export

import (
	"bytes"
	"errors"
	"os/exec"
	"strings"
	"sync"

	"capstan/core/frame"
	"capstan/core/raster"
	"capstan/core/words"
	"capstan/studio/aside"
	"capstan/studio/media"
)

// able holds the paths of programs that have been found to make video: they are not asked again.
var able sync.Map

// Video returns why this machine cannot make video, as a *words.Fault, or nil.
func Video() error {
	path, err := exec.LookPath("ffmpeg")
	if _, known := able.Load(path); err == nil && known {
		return nil
	}
	out, err := exec.Command("ffmpeg", "-hide_banner", "-encoders").Output()
	switch {
	case err != nil:
		return words.New("video.none")
	case !bytes.Contains(out, []byte(" libx264 ")):
		return words.New("video.x264")
	}
	able.Store(path, true)
	return nil
}

// told returns why an export failed, in words.
func told(err error) *words.Fault {
	var f *words.Fault
	switch {
	case errors.As(err, &f):
		return f
	case errors.Is(err, raster.ErrMemory):
		return words.Because(err, "export.memory")
	case aside.Full(err):
		return words.Because(err, "export.full")
	}
	f = words.Because(err, "export.failed")
	f.Detail = err.Error()
	return f
}

// Ready returns why a film cannot be exported: a picture whose file is missing.
func Ready(film *frame.Film, files *media.Folder) error {
	for _, hash := range film.Pictures {
		if !files.Has(hash) {
			return words.New("export.picture-gone", film.Doc.Media[hash].Name)
		}
	}
	return nil
}

// translated says what ffmpeg's last words mean, and keeps them.
func translated(last string) *words.Fault {
	key := "export.failed"
	for _, m := range [][2]string{
		{"No space left", "export.full"},
		{"File too large", "export.full"},
		{"Permission deni", "export.folder"},
		{"Unknown encoder", "video.x264"},
		{"Cannot allocate", "export.memory"},
		{"signal: killed", "export.killed"},
		{"broken pipe", "export.stopped"},
		{"Invalid argument", "export.unsuited"},
	} {
		if strings.Contains(last, m[0]) {
			key = m[1]
			break
		}
	}
	f := words.New(key)
	f.Detail = last
	return f
}
