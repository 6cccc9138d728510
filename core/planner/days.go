package planner

import "time"

const secondsOfDay = 24 * 3600

// Day is the date on which something was, where it was: days since 1 January 1970.
func Day(at time.Time) int {
	y, m, d := at.Date()
	return int(time.Date(y, m, d, 0, 0, 0, 0, time.UTC).Unix() / secondsOfDay)
}

// DateOf is a day, at midnight UTC.
func DateOf(day int) time.Time { return time.Unix(int64(day)*secondsOfDay, 0).UTC() }

// Weeks begin on Mondays; the first after 1970 began was on 5 January.
const firstMonday = 4

func weekOf(day int) int {
	days := day - firstMonday
	return (days - (days%7+7)%7) / 7
}

func begins(week int) time.Time { return DateOf(7*week + firstMonday) }

// Since is the first day of the last so many weeks: today is their last one.
func Since(weeks int, today time.Time) int { return Day(today) - 7*weeks + 1 }
