package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"os/signal"
	"path/filepath"
	"slices"
	"strings"
	"syscall"
	"time"
	"unicode"

	"github.com/spf13/cobra"

	"capstan/core/anim"
	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/words"
	"capstan/studio/export"
)

// exporting is what the command line asks for.
type exporting struct {
	delivery.Ask
	film, out            string
	fps, from, to, pause float64
	loss, poster         float64
	once, json           bool
	target               int64
	dither, give, mark   string
	corner, times        string
}

// said is a line of progress for machines.
type said struct {
	File  string `json:"file"`
	Done  int64  `json:"done"`
	All   int64  `json:"all"`
	Tried string `json:"tried,omitempty"`
	Bytes int64  `json:"bytes,omitempty"` // of the file that is made, or was tried
	Error string `json:"error,omitempty"`
}

func exportCommand() *cobra.Command {
	var x exporting
	c := &cobra.Command{
		Use: "export FILE.capstan|FOLDER...", Short: "Export films as MP4, GIF or animated PNG, or frames of them as PNG or JPEG", Args: cobra.MinimumNArgs(1),
		Long: `Export films. Of a folder, each bundle in it is exported; --out is then a folder, or a name with {project} in it.
It ends with 0 when all was made, with 1 when something was not, and goes on with the others.`,
		RunE: func(c *cobra.Command, args []string) error { return x.run(c, args) },
	}
	f := c.Flags()
	filmFlag(c, &x.film)
	f.StringVar(&x.Format, "format", "", "mp4, webm, av1, overlay (WebM, clear), mov (ProRes 4444, clear), gif, apng, webp, frames (a zip), or png or jpg: the frame at --from (default: as --out ends)")
	f.IntVar(&x.Height, "height", 0, "height in pixels (default: the film's)")
	f.IntVar(&x.Width, "width", 0, "width in pixels, in place of the height")
	f.Float64Var(&x.fps, "fps", 0, "frames a second (default: the film's; of what goes round at most 25)")
	f.Int64Var(&x.Frame, "frame", 0, "milliseconds a frame, in place of --fps")
	f.StringVar(&x.times, "times", "", "frames timed by hand: 12=500,13=0 shows the 12th for 500 ms and drops the 13th")
	f.Float64Var(&x.from, "from", 0, "begin, in seconds")
	f.IntVar(&x.Scene, "scene", 0, "PNG and JPEG: the number of a scene, which is shown as it rests, in place of --from")
	f.BoolVar(&x.Scenes, "scenes", false, "PNG and JPEG: a file of each scene; --out is a folder, or a name with {scene} in it")
	f.Float64Var(&x.to, "to", 0, "end, in seconds (default: the film's end)")
	f.StringVar(&x.Quality, "quality", "", "of video: fine, good or light (default fine)")
	f.Float64Var(&x.poster, "poster", -1, "second of the film whose frame stands for a video (default: the end of its first scene)")
	f.BoolVar(&x.once, "once", false, "GIF and animated PNG: play once instead of for ever")
	f.Int64Var(&x.Passes, "passes", 0, "GIF and animated PNG: how often it plays (default: for ever)")
	f.Float64Var(&x.pause, "pause", -1, "seconds the last frame rests before it begins again (default: as the film asks)")
	f.IntVar(&x.Colours, "colours", 0, "GIF: at most so many (default 255)")
	f.StringVar(&x.dither, "dither", "", "GIF: none, ordered, noise or diffusion (default: what suits)")
	f.Float64Var(&x.loss, "loss", -1, "GIF: how far a pixel may be from its colour for a smaller file, 0 (exact) to 100 (default 4, which is not seen)")
	f.Int64Var(&x.target, "target", 0, "GIF and animated PNG: at most so many KB")
	f.StringVar(&x.give, "give", "", "what is given up for the target, in order (default dither,loss,colours,rate,size)")
	f.Float64Var(&x.Shutter, "shutter", 0, "motion blur: degrees of a frame that light falls in, up to 360 (default 0: none)")
	f.IntVar(&x.Samples, "samples", 0, "motion blur: moments that a frame is made of (default 8)")
	f.StringVar(&x.mark, "mark", "", "words that lie over the file in a corner")
	f.StringVar(&x.corner, "corner", "", "corner of the mark: lower right, lower left, upper right or upper left")
	f.StringVar(&x.Title, "title", "", "title that the file carries")
	f.StringVar(&x.Description, "description", "", "description that the file carries")
	f.BoolVar(&x.json, "json", false, "progress as lines of JSON")
	f.StringVar(&x.out, "out", "film.mp4", "file to write, or folder")
	return c
}

// ask is what the flags ask for.
func (x *exporting) ask() (a delivery.Ask, err error) {
	a = x.Ask
	if a.Times, err = delivery.ReadHolds(x.times); err != nil {
		return a, err
	}
	a.From, a.To, a.Target, a.Dither = ms(x.from), ms(x.to), 1000*x.target, anim.Dither(x.dither)
	if x.fps != 0 {
		a.Rate = doc.Rate{Num: ms(x.fps), Den: 1000} // to a thousandth
	}
	if x.once {
		a.Passes = 1
	}
	if x.pause >= 0 {
		v := ms(x.pause)
		a.Pause = &v
	}
	if x.poster >= 0 {
		v := ms(x.poster)
		a.Poster = &v
	}
	if x.loss >= 0 {
		a.Loss = &x.loss
	}
	if x.mark != "" {
		a.Mark = &delivery.Mark{Words: x.mark, Corner: x.corner}
	}
	for _, s := range strings.FieldsFunc(x.give, func(r rune) bool { return r == ',' || r == ' ' }) {
		a.Give = append(a.Give, delivery.Sacrifice(s))
	}
	return a, nil
}

func (x *exporting) run(c *cobra.Command, args []string) error {
	bundles, err := bundlesIn(args)
	if err != nil {
		return err
	}
	if x.Format == "" {
		x.Format = delivery.MP4
		if end := strings.ToLower(strings.TrimPrefix(filepath.Ext(x.out), ".")); delivery.ByEnding(end) != "" {
			x.Format = delivery.ByEnding(end)
		}
	}
	info, gone := os.Stat(x.out)
	folder := gone == nil && info.IsDir() || strings.HasSuffix(x.out, string(filepath.Separator))
	if len(bundles) > 1 && !folder && !strings.Contains(x.out, "{project}") {
		return words.New("export.one-name", len(bundles))
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	var failed error
	for _, b := range bundles {
		err := x.one(ctx, b, folder)
		if errors.Is(err, context.Canceled) {
			return words.New("export.cancelled")
		}
		if err != nil && len(bundles) > 1 {
			x.say(said{File: b, Error: err.Error()}, fmt.Sprintf("%s: %v\n", b, err))
		}
		failed = errors.Join(failed, err)
	}
	if failed != nil && len(bundles) > 1 {
		return words.New("export.some-failed", len(bundles))
	}
	return failed
}

// bundlesIn are the files named, and all bundles of the folders named, in the order of their names.
func bundlesIn(args []string) (list []string, err error) {
	for _, a := range args {
		info, err := os.Stat(a)
		if err != nil {
			return nil, err
		}
		if !info.IsDir() {
			list = append(list, a)
			continue
		}
		found, err := filepath.Glob(filepath.Join(a, "*.capstan"))
		if err != nil {
			return nil, err
		}
		slices.Sort(found)
		list = append(list, found...)
	}
	if len(list) == 0 {
		return nil, words.New("export.no-bundle")
	}
	return list, nil
}

// say tells of what goes on: to machines or to people.
func (x *exporting) say(m said, people string) {
	if !x.json {
		fmt.Fprint(os.Stderr, people)
		return
	}
	if err := json.NewEncoder(os.Stderr).Encode(m); err != nil {
		fmt.Fprintln(os.Stderr, err)
	}
}

func (x *exporting) one(ctx context.Context, bundle string, folder bool) error {
	o, err := open(bundle, x.film)
	if err != nil {
		return err
	}
	defer o.close()
	ask, err := x.ask()
	if err != nil {
		return err
	}
	asks, err := delivery.Each(o.film, ask)
	if err != nil {
		return err
	}
	if len(asks) > 1 && !folder && !strings.Contains(x.out, "{scene}") {
		return words.New("export.one-name", len(asks))
	}
	for _, ask := range asks {
		plan, err := delivery.Of(o.film, ask)
		if err != nil {
			return err
		}
		if err := x.file(ctx, o, plan, strings.TrimSuffix(filepath.Base(bundle), ".capstan"), folder); err != nil {
			return err
		}
	}
	return nil
}

// file makes one file of a project.
func (x *exporting) file(ctx context.Context, o *opened, plan delivery.Plan, project string, folder bool) error {
	plan.SceneName = strings.Map(func(r rune) rune {
		if strings.ContainsRune("/\\:", r) || unicode.IsControl(r) {
			return '-'
		}
		return r
	}, plan.SceneName)
	out := plan.Name(x.out, project, 1, time.Now())
	if folder {
		if err := os.MkdirAll(x.out, 0o755); err != nil {
			return err
		}
		name := project
		if plan.Scene > 0 {
			name = fmt.Sprintf("%s-%d-%s", project, plan.Scene, plan.SceneName)
		}
		out = filepath.Join(x.out, name+"."+delivery.Ending(x.Format))
	}
	_, err := export.MakeWithin(ctx, o.film, o.files, plan, out, func(done, all int64) {
		x.say(said{File: out, Done: done, All: all}, fmt.Sprintf("\r%s: frame %d of %d", out, done, all))
	}, func(gives string, bytes int64) {
		x.say(said{File: out, Tried: gives, Bytes: bytes}, fmt.Sprintf("\n%s: %d KB\n", gives, bytes/1000))
	})
	if err != nil {
		x.say(said{File: out, Error: err.Error()}, "\n")
		return err
	}
	info, err := os.Stat(out)
	if err == nil {
		n := plan.Sequence(o.film).Len()
		x.say(said{File: out, Done: n, All: n, Bytes: info.Size()}, "\n")
	}
	return err
}
