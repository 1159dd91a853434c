package export

import (
	"bytes"
	"errors"
	"os/exec"
	"strings"
	"sync"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/raster"
	"capstan/core/sound"
	"capstan/core/words"
	"capstan/studio/aside"
	"capstan/studio/media"
)

// known is what programs say that they encode, by their paths: starting one takes as long as drawing a screen.
var known = struct {
	sync.Mutex
	by map[string][]byte
}{by: map[string][]byte{}}

// encodes returns why this machine's ffmpeg has no such encoder, as a *words.Fault, or nil. One that has none is asked again.
func encodes(encoder string) error {
	path, err := exec.LookPath("ffmpeg")
	if err != nil {
		return words.New("video.none")
	}
	known.Lock()
	defer known.Unlock()
	name := []byte(" " + encoder + " ")
	if bytes.Contains(known.by[path], name) {
		return nil
	}
	out, err := exec.Command(path, "-hide_banner", "-encoders").Output()
	if err != nil {
		return words.New("video.none")
	}
	if known.by[path] = out; !bytes.Contains(out, name) {
		return lacking(encoder)
	}
	return nil
}

// lacking is the fault of an ffmpeg without an encoder.
func lacking(encoder string) *words.Fault {
	if encoder == "libx264" {
		return words.New("video.x264")
	}
	return words.New("video.encoder", encoder)
}

// Lacks are the formats that this machine cannot make, with why, in words.
func Lacks() map[string]string {
	out := map[string]string{}
	for name := range delivery.Formats {
		if err := Able(name); err != nil {
			out[name] = err.Error()
		}
	}
	return out
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

// Ready returns why a film cannot be exported: a picture or a sound whose file is missing.
func Ready(film *frame.Film, files *media.Folder) error {
	for _, name := range film.Pictures {
		if err := files.Ready(name); err != nil {
			hash, _ := doc.Shown(name)
			return words.Because(err, "export.picture-gone", film.Doc.Media[hash].Name)
		}
	}
	for _, hash := range sound.Of(film).Recordings() {
		if !files.Has(hash) {
			return words.New("export.sound-gone", film.Doc.Media[hash].Name)
		}
	}
	return nil
}

// translated says what ffmpeg's last words mean, and keeps them.
func translated(last string) *words.Fault {
	if _, after, found := strings.Cut(last, "Unknown encoder "); found {
		f := lacking(strings.Trim(strings.Fields(after + " ?")[0], "'"))
		f.Detail = last
		return f
	}
	key := "export.failed"
	for _, m := range [][2]string{
		{"No space left", "export.full"},
		{"File too large", "export.full"},
		{"Permission deni", "export.folder"},
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
