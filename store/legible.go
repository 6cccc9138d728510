package store

import (
	"database/sql"
	"errors"
	"fmt"
	"math"
	"reflect"
	"time"

	"gorm.io/gorm"
)

var errIllegible = errors.New("it cannot be shown")

// legible says what of a row cannot be shown to anybody: a time or a number beyond what can be
// written down.
func legible(row any) error { return legibleValue(reflect.ValueOf(row)) }

func legibleValue(v reflect.Value) error {
	switch is := v.Interface().(type) {
	case time.Time:
		if is.Year() < 0 || is.Year() > 9999 {
			return fmt.Errorf("%w: it is of a time that cannot be", errIllegible)
		}
		return nil
	case gorm.DeletedAt:
		return legibleValue(reflect.ValueOf(is.Time))
	case sql.NullTime:
		return legibleValue(reflect.ValueOf(is.Time))
	case float64:
		if math.IsInf(is, 0) || math.IsNaN(is) {
			return fmt.Errorf("%w: it has a number that cannot be", errIllegible)
		}
		return nil
	}
	switch v.Kind() {
	case reflect.Struct:
		for i := range v.NumField() {
			if v.Type().Field(i).IsExported() {
				if err := legibleValue(v.Field(i)); err != nil {
					return err
				}
			}
		}
	case reflect.Pointer:
		if !v.IsNil() {
			return legibleValue(v.Elem())
		}
	}
	return nil
}
