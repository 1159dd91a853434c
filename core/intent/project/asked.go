// Package project is what is asked about a project’s files, stages and tables.
package project

import "capstan/core/intent"

// Asked is all of it, by name.
var Asked = intent.Join(fontsAsked, replacingAsked, tablesAsked)
