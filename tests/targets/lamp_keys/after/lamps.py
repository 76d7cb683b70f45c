from lamps_app import LampsApp

LampsApp().run()
