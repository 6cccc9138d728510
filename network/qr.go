package network

import (
	"fmt"
	"strings"

	"rsc.io/qr"
)

// Around a code there is so much room, which readers need (ISO/IEC 18004, 6.3.8).
const quiet = 4

// Drawn is a QR code as one path of an SVG, in squares of one; Size is how wide and high it is, with the room around it.
type Drawn struct {
	Path string `json:"path"`
	Size int    `json:"size"`
}

func draw(text string) (Drawn, error) {
	code, err := qr.Encode(text, qr.M)
	if err != nil {
		return Drawn{}, err
	}
	var path strings.Builder
	for y := range code.Size {
		for x := 0; x < code.Size; x++ {
			from := x
			for code.Black(x, y) {
				x++
			}
			if x > from {
				fmt.Fprintf(&path, "M%d %dh%dv1h-%dz", from+quiet, y+quiet, x-from, x-from)
			}
		}
	}
	return Drawn{path.String(), code.Size + 2*quiet}, nil
}

// printed is a QR code for a terminal, dark on light whatever its colours are, two rows in a line.
func printed(text string) (string, error) {
	code, err := qr.Encode(text, qr.M)
	if err != nil {
		return "", err
	}
	var out strings.Builder
	for y := -quiet; y < code.Size+quiet; y += 2 {
		out.WriteString("\x1b[30;107m")
		for x := -quiet; x < code.Size+quiet; x++ {
			out.WriteString([]string{" ", "▄", "▀", "█"}[2*b(code.Black(x, y))+b(code.Black(x, y+1))])
		}
		out.WriteString("\x1b[0m\n")
	}
	return out.String(), nil
}

func b(black bool) int {
	if black {
		return 1
	}
	return 0
}
