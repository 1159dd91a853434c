package main

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/signal"
	"path/filepath"
	"runtime/debug"
	"syscall"
	"time"

	"capstan/core/cutout"
	"capstan/core/doc"
	"capstan/core/words"
	"capstan/demo"
	"capstan/studio/api"
	"capstan/studio/aside"
	"capstan/studio/budget"
	"capstan/studio/bundle"
	"capstan/studio/media"
	"capstan/studio/speech"
	"capstan/studio/store"

	"github.com/spf13/cobra"
)

const defaultAddr = "127.0.0.1:4870"

// place is where and how the application is served.
type place struct {
	data, addr, token string
	quota             byteSize
}

func (p *place) flags(c *cobra.Command) {
	p.quota = api.DefaultQuota
	c.Flags().StringVar(&p.data, "data", "data", "data folder")
	c.Flags().StringVar(&p.addr, "addr", defaultAddr, "address to listen on; one that other machines reach asks for a token")
	c.Flags().StringVar(&p.token, "token", "", "the token for other machines, 16 characters or more; made and kept in the data folder otherwise")
	c.Flags().Var(&p.quota, "quota", "how much the data may take of the disk")
	c.Flags().String("config", "", "file of settings, JSON; flags and environment (CAPSTAN_DATA …) go before it")
	c.PreRunE = func(c *cobra.Command, _ []string) error { return settle(c) }
}

func serveCommand() *cobra.Command {
	var p place
	c := &cobra.Command{
		Use: "serve", Short: "Serve the application on a data folder", Args: cobra.NoArgs,
		RunE: func(*cobra.Command, []string) error { return p.serve(nil) },
	}
	p.flags(c)
	return c
}

func demoCommand() *cobra.Command {
	var p place
	var write string
	c := &cobra.Command{
		Use: "demo", Short: "Serve the application with the demo projects, or write them as bundles", Args: cobra.NoArgs,
		RunE: func(*cobra.Command, []string) error {
			if write != "" {
				return writeDemo(write)
			}
			return p.serve(seed)
		},
	}
	p.flags(c)
	c.Flags().StringVar(&write, "write", "", "write the demo projects as .capstan files into this folder instead")
	return c
}

// seed adds the demo projects that a store does not have yet; edited ones are left alone.
func seed(s *store.Store) error {
	lacks := false
	for _, p := range []*doc.Project{demo.Drawings(), demo.Lifted("", "", "", nil, nil, nil), demo.Talk(), demo.Reel(), demo.Sticker(), demo.Evening("", nil), demo.Post(), demo.Opener("", nil)} {
		_, _, err := s.Load(p.ID)
		if err != nil && !words.Is(err, "not-found") {
			return err
		}
		lacks = lacks || err != nil
	}
	if !lacks {
		return nil // taking the picture in takes longer than all else
	}
	opener, evening, lifted, err := pictured(media.NewFolder(filepath.Join(s.Dir(), "media")))
	if err != nil {
		return err
	}
	for _, p := range []*doc.Project{demo.Drawings(), lifted, demo.Talk(), demo.Reel(), demo.Sticker(), evening, demo.Post(), opener} {
		_, _, err := s.Load(p.ID)
		if words.Is(err, "not-found") {
			if _, err = s.Create(p); err == nil {
				err = presets(s, p.ID)
			}
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// presets stores what is asked for of a demo project.
func presets(s *store.Store, id string) (err error) {
	for i, p := range demo.Presets()[id] {
		raw, failed := json.Marshal(p.Ask)
		err = errors.Join(err, failed, s.SavePreset(&store.Preset{ID: fmt.Sprint(id, "-", i), ProjectID: id, Name: p.Name, Ask: string(raw), CreatedAt: time.Now()}))
	}
	return err
}

// pictured are the demo projects that show pictures, which are taken into a folder.
func pictured(files *media.Folder) (opener, evening, lifted *doc.Project, err error) {
	// Sounds are taken in meanwhile: they wait for other programs most of the time.
	type heard struct {
		add func(p *doc.Project) *doc.Project
		err error
	}
	sounds := make(chan heard, 1)
	go func() {
		add, err := sounded(files)
		sounds <- heard{add, err}
		close(sounds)
	}()
	defer func() { <-sounds }() // whatever goes wrong, nobody writes into the folder after this
	sky, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		return nil, nil, nil, err
	}
	harbour, drawn, err := files.Take(bytes.NewReader(demo.Harbour()), "harbour.png")
	if err != nil {
		return nil, nil, nil, err
	}
	drawn.Source, drawn.Licence = "Drawn for Capstan’s demo", "CC0-1.0"
	if lifted, err = cutOut(files, harbour, drawn); err != nil {
		return nil, nil, nil, err
	}
	opener = demo.Opener(sky, facts)
	h := <-sounds
	if h.err != nil {
		return nil, nil, nil, h.err
	}
	return h.add(opener), demo.Evening(harbour, drawn), lifted, nil
}

// sounded takes the sounds of the demo in, and returns what gives a project them. Without ffmpeg, by which sounds are taken in, it is silent.
func sounded(files *media.Folder) (add func(p *doc.Project) *doc.Project, err error) {
	taken, facts := map[string]string{}, map[string]*doc.Media{}
	for what, r := range demo.Recordings {
		hash, m, err := files.TakeSound(context.Background(), bytes.NewReader(r.Data()), r.Name)
		if words.Is(err, "sound.ffmpeg") {
			slog.Warn("the demo has no sounds", "error", err)
			return func(p *doc.Project) *doc.Project { return p }, nil
		}
		if err != nil {
			return nil, err
		}
		m.Source, m.Licence = "Made for Capstan’s demo", "CC0-1.0"
		taken[what], facts[what] = hash, m
	}
	line := demo.Line
	said, err := speech.Say(context.Background(), speech.Espeak{}, line)
	if err != nil {
		slog.Warn("the demo has no voice", "error", err)
		return func(p *doc.Project) *doc.Project { return demo.Sounded(p, taken, facts, nil) }, nil
	}
	hash, m, err := files.TakeSound(context.Background(), bytes.NewReader(said.WAV), "Voice.wav")
	if err != nil {
		return nil, err
	}
	m.Source, m.Licence = "Spoken for Capstan’s demo", "CC0-1.0"
	taken["voice"], facts["voice"], line.Lines, line.Words = hash, m, said.Lines, said.Words
	return func(p *doc.Project) *doc.Project { return demo.Sounded(p, taken, facts, &line) }, nil
}

// cutOut is the demo project with depth: its cut-out is worked out by the strokes that it has, and the ground behind it.
func cutOut(files *media.Folder, harbour string, drawn *doc.Media) (*doc.Project, error) {
	img, err := files.Pixels(harbour, 0)
	if err != nil {
		return nil, err
	}
	mask, _, err := cutout.NewSource(img).Mask(demo.HarbourCut(harbour))
	if err != nil {
		return nil, err
	}
	cut, maskFacts, err := files.TakeMask(mask, "Mask of the harbour")
	if err != nil {
		return nil, err
	}
	behind, behindFacts, err := files.Ground(context.Background(), harbour, cut, "Harbour behind")
	if err != nil {
		return nil, err
	}
	behindFacts.Source, behindFacts.Licence = drawn.Source, drawn.Licence
	return demo.Lifted(harbour, behind, cut, drawn, behindFacts, maskFacts), nil
}

func writeDemo(dir string) error {
	if err := os.MkdirAll(filepath.Join(dir, "media"), 0o755); err != nil {
		return err
	}
	tmp, err := os.MkdirTemp("", "capstan-demo")
	if err != nil {
		return err
	}
	defer os.RemoveAll(tmp)
	files := media.NewFolder(tmp)
	opener, evening, lifted, err := pictured(files)
	if err != nil {
		return err
	}
	os.Remove(filepath.Join(dir, "media"))
	for _, p := range []*doc.Project{opener, demo.Post(), demo.Reel(), demo.Talk(), evening, demo.Sticker(), lifted, demo.Drawings()} {
		var b bytes.Buffer
		if err := bundle.Write(&b, p, files); err != nil {
			return err
		}
		if err := aside.Write(filepath.Join(dir, p.ID+".capstan"), b.Bytes(), 0o644); err != nil {
			return err
		}
	}
	return nil
}

// local tells whether an address is reached from this machine only.
func local(addr string) (bool, error) {
	host, _, err := net.SplitHostPort(addr)
	if err != nil {
		return false, fmt.Errorf("%q is no address to listen on. Capstan was not started. Type one like %s", addr, defaultAddr)
	}
	ip := net.ParseIP(host)
	return host == "localhost" || ip != nil && ip.IsLoopback(), nil
}

// secret returns the token for other machines: the one that was chosen, or one that is kept in the data folder.
func (p *place) secret() (string, error) {
	if p.token != "" {
		if len(p.token) < 16 {
			return "", errors.New("the token is shorter than 16 characters. Capstan was not started. Choose a longer one")
		}
		return p.token, nil
	}
	return api.Secret(filepath.Join(p.data, "token"))
}

func (p *place) serve(prepare func(*store.Store) error) error {
	debug.SetMemoryLimit(budget.Memory)
	alone, err := local(p.addr)
	if err != nil {
		return err
	}
	a, err := assets()
	if err != nil {
		return err
	}
	s, err := store.Open(p.data, a)
	if words.Is(err, "data.read-only") {
		slog.Warn(err.Error())
		s, err = store.OpenToRead(p.data, a)
	}
	if err != nil {
		return err
	}
	defer s.Close()
	if prepare != nil && !s.ReadOnly() {
		if err := prepare(s); err != nil {
			return err
		}
	}
	o := api.Options{Quota: int64(p.quota)}
	if !alone {
		if o.Token, err = p.secret(); err != nil {
			return err
		}
		o.Host, _, _ = net.SplitHostPort(p.addr)
	}
	server, err := api.New(s, o)
	if err != nil {
		return err
	}
	listener, err := net.Listen("tcp", p.addr)
	if errors.Is(err, syscall.EADDRINUSE) {
		return words.New("address.taken", p.addr)
	} else if err != nil {
		return err
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	done := make(chan error, 1)
	go func() { done <- server.Run(ctx) }()
	h := server.HTTP(p.addr)
	go func() {
		<-ctx.Done()
		end, cancel := context.WithTimeout(context.Background(), 2*time.Second)
		defer cancel()
		if err := h.Shutdown(end); err != nil {
			h.Close() // event streams are still open; that is how they end
		}
	}()
	url := "http://" + listener.Addr().String()
	if err := s.ServedAt(url); err != nil {
		return err
	}
	if o.Token != "" {
		url += "/?token=" + o.Token
	}
	slog.Info("Capstan is ready", "open", url, "data", p.data)
	if err := h.Serve(listener); err != nil && !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return <-done
}
