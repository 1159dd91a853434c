package main

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/spf13/cobra"
)

// settled returns what a serve command would work with, given arguments, environment and a file of settings.
func settled(t *testing.T, args []string, env map[string]string, file string) (place, error) {
	t.Helper()
	for k, v := range env {
		t.Setenv(k, v)
	}
	name := filepath.Join(t.TempDir(), "capstan.json")
	if file != "" {
		if err := os.WriteFile(name, []byte(file), 0o644); err != nil {
			t.Fatal(err)
		}
		t.Setenv("CAPSTAN_CONFIG", name)
	}
	var p place
	c := &cobra.Command{Use: "serve", RunE: func(*cobra.Command, []string) error { return nil }, SilenceErrors: true, SilenceUsage: true}
	p.flags(c)
	root := &cobra.Command{Use: "capstan"}
	root.AddCommand(c)
	root.SetArgs(append([]string{"serve"}, args...))
	return p, root.Execute()
}

func TestFlagsGoBeforeTheEnvironmentAndThatBeforeTheFile(t *testing.T) {
	file := `{"data": "of the file", "addr": "127.0.0.1:1", "quota": "3 GB"}`
	for name, c := range map[string]struct {
		args  []string
		env   map[string]string
		file  string
		data  string
		addr  string
		quota byteSize
	}{
		"nothing":  {nil, nil, "", "data", defaultAddr, 10e9},
		"the file": {nil, nil, file, "of the file", "127.0.0.1:1", 3e9},
		"the environment": {nil, map[string]string{"CAPSTAN_DATA": "of the environment", "CAPSTAN_QUOTA": "500MB"}, file,
			"of the environment", "127.0.0.1:1", 5e8},
		"flags": {[]string{"--data", "typed", "--quota", "1.5 GiB"}, map[string]string{"CAPSTAN_DATA": "of the environment", "CAPSTAN_ADDR": "127.0.0.1:2"}, file,
			"typed", "127.0.0.1:2", 3 << 29},
	} {
		t.Run(name, func(t *testing.T) {
			p, err := settled(t, c.args, c.env, c.file)
			if err != nil || p.data != c.data || p.addr != c.addr || p.quota != c.quota {
				t.Errorf("%+v, %v", p, err)
			}
		})
	}
}

func TestWrongSettingsAreToldWithWhereTheyStand(t *testing.T) {
	for name, c := range map[string]struct {
		args []string
		env  map[string]string
		file string
		want string
	}{
		"no JSON":       {nil, nil, `{"data":`, "capstan.json cannot be read"},
		"unknown":       {nil, nil, `{"dta": "x"}`, `a setting "dta"`},
		"no size":       {nil, nil, `{"quota": "plenty"}`, `says "plenty" for quota`},
		"less than 0":   {nil, map[string]string{"CAPSTAN_QUOTA": "-1 GB"}, "", "CAPSTAN_QUOTA says"},
		"no such file":  {[]string{"--config", "nowhere.json"}, nil, "", "nowhere.json cannot be read"},
		"size on flags": {[]string{"--quota", "1 parsec"}, nil, "", "type it like 20 GB"},
	} {
		t.Run(name, func(t *testing.T) {
			if _, err := settled(t, c.args, c.env, c.file); err == nil || !strings.Contains(err.Error(), c.want) {
				t.Errorf("got %v, want %q", err, c.want)
			}
		})
	}
}

func TestOnlyLoopbackNeedsNoToken(t *testing.T) {
	for addr, want := range map[string]bool{
		"127.0.0.1:80": true, "[::1]:80": true, "localhost:80": true, ":80": false, "0.0.0.0:80": false, "192.0.2.1:80": false, "studio.example:80": false,
	} {
		if got, err := local(addr); got != want || err != nil {
			t.Errorf("%s: %v, %v", addr, got, err)
		}
	}
	if _, err := local("nonsense"); err == nil {
		t.Error("nonsense is an address")
	}
	if _, err := (&place{token: "short"}).secret(); err == nil {
		t.Error("a short token is taken")
	}
	dir := t.TempDir()
	a, err := (&place{data: dir}).secret()
	b, _ := (&place{data: dir}).secret()
	if err != nil || a != b || len(a) < 32 {
		t.Errorf("the kept token: %q, %q, %v", a, b, err)
	}
}
