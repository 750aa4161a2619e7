"""What a teacher does, as named functions: judge a take, move on a climb, look at the desk of a day, practise.

They stand between what is kept and the web. Routes parse, call one of these and shape what comes back; the demo
studio calls the same. No rule of the job is decided further up.
"""
