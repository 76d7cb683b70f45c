#!/usr/bin/env python3
# -*- coding: utf-8 -*-
# a header that belongs to nobody

'''One tram, oddly laid out.'''
import sys; import os.path as path, re

if True:
    seats = 4
else:
    seats = 2

riders = \
    0
names = [
    "ann",   # first
    "bob",

    # a remark inside
]; open_ = False


def \
  board(name  ,
        how=None):   # a remark on the head
  global riders, open_   # a remark on the declaration

  # two spaces here
  if name in names: open_ = True; riders += 1
  else:
      open_ = False

      riders += 0
  return riders
def leave (): global riders; riders -= 1; return riders
# between

async def later(): return riders

def after() :
	global riders
	riders += 10
	def inner():
			return riders
	return inner()


print(board("ann"), board ( "cid" , how = 3 ), leave())  # first line
print(
    after(),
    board(
        "bob",  # the last
    ),
    re.sub("a", "b", "aa"), path.sep == "/", len(sys.argv),
)
if open_: print("open", seats)
for i in range(2):
    print(leave()); riders += i
else: print("end", riders)
