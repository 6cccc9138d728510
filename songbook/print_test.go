package songbook_test

import (
	"fmt"
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"undaris/core/neck"
)

// short prints anything as a musician can read it: what has a name by its name, of a structure what
// is not empty, of numbers three decimals.
func short(v any) string { return strings.TrimSpace(shorten(reflect.ValueOf(v))) }

func shorten(v reflect.Value) string {
	if !v.IsValid() {
		return ""
	}
	if v.CanInterface() {
		switch x := v.Interface().(type) {
		case *neck.Instrument:
			return x.Tuning()
		case error:
			return "“" + x.Error() + "”"
		case fmt.Stringer:
			if v.Kind() != reflect.Pointer || !v.IsNil() {
				return x.String()
			}
		}
	}
	switch v.Kind() {
	case reflect.Pointer, reflect.Interface:
		return shorten(v.Elem())
	case reflect.Float64, reflect.Float32:
		return strconv.FormatFloat(math.Round(1000*v.Float())/1000, 'f', -1, 64)
	case reflect.Struct:
		var parts []string
		for i := range v.NumField() {
			f := v.Type().Field(i)
			if !f.IsExported() || v.Field(i).IsZero() {
				continue
			}
			text := shorten(v.Field(i))
			if text != "" && !f.Anonymous {
				text = f.Name + " " + text
			}
			if text != "" {
				parts = append(parts, text)
			}
		}
		if len(parts) == 1 {
			return parts[0]
		}
		return "{" + strings.Join(parts, ", ") + "}"
	case reflect.Slice, reflect.Array:
		var parts []string
		for i := range v.Len() {
			parts = append(parts, shorten(v.Index(i)))
		}
		return "[" + strings.Join(parts, " ") + "]"
	case reflect.Map:
		var parts []string
		for _, k := range v.MapKeys() {
			parts = append(parts, fmt.Sprint(k.Interface())+": "+shorten(v.MapIndex(k)))
		}
		slices.Sort(parts)
		return "{" + strings.Join(parts, ", ") + "}"
	case reflect.Func:
		return ""
	}
	return fmt.Sprint(v.Interface())
}
