"""The core: programs, designs and changes, without any interface."""
