notice_text = """first
  second
third"""
notice_count = 0


def notice_show(times):
    global notice_count
    text = """
a line
    another, indented
"""
    for _ in range(times):
        notice_count += 1
        print(text + notice_text, notice_count)
    return f"""{notice_count}
  {notice_text!r}
"""


print(notice_show(2))
banner = """
    not touched
  at all
"""
print(banner)
print(notice_show(1), end="")
