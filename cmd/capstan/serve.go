package main

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/signal"
	"path/filepath"
	"syscall"
	"time"

	"capstan/demo"
	"capstan/studio/api"
	"capstan/studio/bundle"
	"capstan/studio/media"
	"capstan/studio/store"

	"github.com/spf13/cobra"
)

const defaultAddr = "127.0.0.1:4870"

func serveCommand() *cobra.Command {
	var dir, addr string
	c := &cobra.Command{
		Use: "serve", Short: "Serve the application on a data folder", Args: cobra.NoArgs,
		RunE: func(*cobra.Command, []string) error { return serve(dir, addr, nil) },
	}
	c.Flags().StringVar(&dir, "data", "data", "data folder")
	c.Flags().StringVar(&addr, "addr", defaultAddr, "address to listen on; loopback only")
	return c
}

func demoCommand() *cobra.Command {
	var dir, addr, write string
	c := &cobra.Command{
		Use: "demo", Short: "Serve the application with the demo projects, or write them as bundles", Args: cobra.NoArgs,
		RunE: func(*cobra.Command, []string) error {
			if write != "" {
				return writeDemo(write)
			}
			return serve(dir, addr, seed)
		},
	}
	c.Flags().StringVar(&dir, "data", "data", "data folder")
	c.Flags().StringVar(&addr, "addr", defaultAddr, "address to listen on; loopback only")
	c.Flags().StringVar(&write, "write", "", "write the demo projects as .capstan files into this folder instead")
	return c
}

// seed adds the demo projects that a store does not have yet; edited ones are left alone.
func seed(s *store.Store) error {
	sky := demo.Sky()
	hash, facts, err := media.NewFolder(filepath.Join(s.Dir(), "media")).Take(bytes.NewReader(sky), "sky.jpg")
	if err != nil {
		return err
	}
	p := demo.Opener(hash, facts)
	var missing *store.NotFound
	if _, _, err := s.Load(p.ID); errors.As(err, &missing) {
		_, err = s.Create(p)
		return err
	} else {
		return err
	}
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
	hash, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		return err
	}
	os.Remove(filepath.Join(dir, "media"))
	var b bytes.Buffer
	if err := bundle.Write(&b, demo.Opener(hash, facts), files); err != nil {
		return err
	}
	return media.WriteFile(filepath.Join(dir, "kite-day-opener.capstan"), b.Bytes())
}

func serve(dir, addr string, prepare func(*store.Store) error) error {
	host, _, err := net.SplitHostPort(addr)
	if ip := net.ParseIP(host); err != nil || (host != "localhost" && (ip == nil || !ip.IsLoopback())) {
		return fmt.Errorf("Capstan listens on this machine only, for example on %s; %q is another address", defaultAddr, addr)
	}
	a, err := assets()
	if err != nil {
		return err
	}
	s, err := store.Open(dir, a)
	if err != nil {
		return err
	}
	defer s.Close()
	if prepare != nil {
		if err := prepare(s); err != nil {
			return err
		}
	}
	server, err := api.New(s)
	if err != nil {
		return err
	}
	listener, err := net.Listen("tcp", addr)
	if errors.Is(err, syscall.EADDRINUSE) {
		return fmt.Errorf("the address %s is taken by another program. Stop it, or choose another with --addr", addr)
	} else if err != nil {
		return err
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	done := make(chan error, 1)
	go func() { done <- server.Queue().Run(ctx) }()
	h := server.HTTP(addr)
	go func() {
		<-ctx.Done()
		end, cancel := context.WithTimeout(context.Background(), 2*time.Second)
		defer cancel()
		if err := h.Shutdown(end); err != nil {
			h.Close() // event streams are still open; that is how they end
		}
	}()
	if err := s.ServedAt("http://" + listener.Addr().String()); err != nil {
		return err
	}
	slog.Info("Capstan is ready", "open", "http://"+listener.Addr().String(), "data", dir)
	if err := h.Serve(listener); err != nil && !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return <-done
}
