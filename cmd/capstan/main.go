// Command capstan is the one binary: the application (demo, serve) and its tools (export, frame, inspect,
// check, doctor).
package main

import (
	"fmt"
	"os"

	"capstan/core/frame"
	"capstan/library"

	"github.com/spf13/cobra"
)

func main() {
	root := &cobra.Command{
		Use: "capstan", Short: "Animated scenes for slides and posts: shapes, images, text, moves and morphs, exported as video or GIF",
		SilenceUsage: true, SilenceErrors: true,
	}
	root.AddCommand(serveCommand(), demoCommand(), exportCommand(), frameCommand(), inspectCommand(), checkCommand(), doctorCommand())
	if err := root.Execute(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func assets() (frame.Assets, error) {
	b, err := library.Book()
	return frame.Assets{Fonts: b}, err
}
