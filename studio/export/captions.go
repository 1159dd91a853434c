package export

import (
	"context"
	"os"
	"path/filepath"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/sound"
	"capstan/core/words"
	"capstan/studio/aside"
)

// captions are those of what a file shows, on its time.
func (t *task) captions() []doc.Caption {
	if len(t.o.Times) > 0 {
		return nil
	}
	return sound.Between(t.film.Captions(), t.o.From, t.o.Until(t.film))
}

// captioned writes the captions of a video beside it and returns their name; empty where it has none, or none are asked for.
func (t *task) captioned(beside string) (string, error) {
	list := t.captions()
	if !t.o.Captions || len(list) == 0 || captionTracks[t.o.Format] == "" {
		return "", nil
	}
	f, err := os.CreateTemp(filepath.Dir(beside), aside.Pattern+".srt")
	if err != nil {
		return "", err
	}
	_, err = f.WriteString(sound.SRT(list))
	if e := f.Close(); err == nil {
		err = e
	}
	if err != nil {
		os.Remove(f.Name())
		return "", err
	}
	return f.Name(), nil
}

// captionTracks are how ffmpeg writes a track of captions, by formats.
var captionTracks = map[string]string{delivery.MP4: "mov_text", delivery.WebM: "webvtt", delivery.AV1: "webvtt", delivery.Clear: "webvtt"}

// captionFile makes files of captions alone.
type captionFile struct{ write func([]doc.Caption) string }

func (captionFile) able() error { return nil }

func (c captionFile) encode(_ context.Context, t *task, out *os.File) error {
	list := t.captions()
	if len(list) == 0 {
		return words.New("export.wordless")
	}
	_, err := out.WriteString(c.write(list))
	t.progress(t.shows.Len(), t.shows.Len())
	return err
}

func (captionFile) readBack(context.Context, *task, string) error { return nil }
