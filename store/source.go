package store

import (
	"net/url"
	"strings"
)

// source is the address of a SQLite file, so that blanks, #, % and ? in its name stay a part of the
// name (https://www.sqlite.org/uri.html).
func source(path, query string) string {
	if len(path) > 1 && path[1] == ':' { // a drive of Windows
		path = "/" + strings.ReplaceAll(path, `\`, "/")
	}
	return "file:" + strings.ReplaceAll((&url.URL{Path: path}).EscapedPath(), "?", "%3F") + "?" + query
}
