package export

import (
	"context"
	"encoding/json"
	"errors"
	"os"
	"os/exec"

	"capstan/core/delivery"
	"capstan/core/frame"
	"capstan/core/words"
	"capstan/studio/store"
)

// NewSound puts a video into the queue that has the encoded pictures of one that was made, and what is heard of the film as it is now; next is the file as it is to
// be, of which that fills in what was asked for. Where the pictures have changed since, a *words.Fault says so.
func (q *Queue) NewSound(old, next *store.Export) error {
	ask, err := Asked(old)
	if err != nil {
		return err
	}
	ask.Pictures, ask.Silent = old.ID, false
	settings, err := json.Marshal(ask)
	if err != nil {
		return err
	}
	next.ProjectID, next.Film, next.Format, next.Width, next.Height, next.RateNum, next.RateDen = old.ProjectID, old.Film, old.Format, old.Width, old.Height, old.RateNum, old.RateDen
	next.At, next.EndPause, next.Frames, next.Settings = old.At, old.EndPause, old.Frames, string(settings)
	film, _, err := q.planned(next)
	if err == nil {
		_, err = q.encoded(next, film)
	}
	if err != nil {
		return err
	}
	return q.Add(next)
}

// encoded is the file whose pictures a video has that is to be made; empty where its own are rendered.
func (q *Queue) encoded(e *store.Export, film *frame.Film) (string, error) {
	ask, err := Asked(e)
	if err != nil || ask.Pictures == "" {
		return "", err
	}
	old, err := q.store.Export(ask.Pictures)
	if err != nil || old.State != store.Done || old.ProjectID != e.ProjectID || old.Format != e.Format || delivery.Formats[e.Format].Track == "" || old.ID == e.ID {
		return "", words.New("export.pictures-gone")
	}
	if _, err := os.Stat(q.File(old)); err != nil {
		return "", words.New("export.pictures-gone")
	}
	was, err := Asked(old)
	if err != nil {
		return "", err
	}
	before, err := q.shown(old, was)
	if err != nil {
		return "", err
	}
	was.Pictures, was.Silent, was.Captions, was.Title, was.Description, was.Name = ask.Pictures, ask.Silent, ask.Captions, ask.Title, ask.Description, ask.Name
	a, err := json.Marshal(was)
	b, other := json.Marshal(ask)
	if err := errors.Join(err, other); err != nil {
		return "", err
	}
	if string(a) != string(b) || !delivery.SamePictures(before, film) {
		return "", words.New("export.pictures-changed")
	}
	return q.File(old), nil
}

// resound makes a video of the encoded pictures of another file.
func (v video) resound(ctx context.Context, t *task, and extras, out string) error {
	list := []string{"-hide_banner", "-loglevel", "error", "-nostdin", "-y", "-protocol_whitelist", "pipe,file", "-i", t.o.Pictures}
	list = append(list, v.beside(t.o, 1, and)...)
	list = append(list, "-c:v", "copy", "-metadata", "title="+t.o.Title, "-metadata", "comment="+t.o.Description)
	how := v.how(t.o)
	for i := 0; i+1 < len(how); i++ { // of the muxer alone
		if how[i] == "-movflags" || how[i] == "-f" {
			list = append(list, how[i], how[i+1])
		}
	}
	cmd := exec.CommandContext(ctx, "ffmpeg", append(list, out)...)
	last := &tail{}
	cmd.Stderr = last
	err := cmd.Run()
	switch {
	case ctx.Err() != nil:
		return ctx.Err()
	case err != nil:
		return translated(firstOf(last.lastWords(), err))
	}
	t.progress(t.shows.Len(), t.shows.Len())
	return nil
}
